using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Decisions;
using MathNet.Numerics.Statistics;

namespace HardyBench.Core.Findings.Explaining;

/// <summary>What became of the frames of a passage, and where the time of the cores went.</summary>
/// <param name="Finding">Counts, work wasted, limiter.</param>
/// <param name="Finished">Frames that were finished before they were settled, shown or not.</param>
/// <param name="Cores">Null where no load of the passage could be read.</param>
/// <param name="Decided">Null where decisions were not logged.</param>
public sealed record PassageExplanation(PassageFinding Finding, int Finished, CoreSeconds? Cores, DecidedFrames? Decided)
{
    /// <summary>One a passage, in order.</summary>
    /// <param name="decisions">Of the same run; null where they were not logged.</param>
    public static IReadOnlyList<PassageExplanation> Of(Run run, IReadOnlyList<Decision>? decisions = null)
    {
        var timeline = run.Header.Timeline;
        return [.. RunFindings.Of(run).Select(finding =>
        {
            var (frames, start) = (run.FramesOf(finding.Index), timeline.StartOf(finding.Index));
            return new PassageExplanation(
                finding,
                frames.Count(frame => frame.Ready is not null),
                CoreSeconds.Of(run, frames),
                decisions is null ? null : DecidedFrames.Of(decisions, start, start + finding.Passage.FrameCount));
        })];
    }
}

/// <summary>How long the cores worked during the slots of a passage, in seconds of one core.</summary>
/// <param name="Length">The slots' length × the cores that the player may use.</param>
/// <param name="Decode">Null, like the others, where it could not be read.</param>
/// <param name="Tool">Sampling, logging and reporting.</param>
/// <param name="Others">All other programs.</param>
public sealed record CoreSeconds(
    double Length, double? Decode, double? Effects, double? Encode, double? Presenting, double? Pictures, double? Tool, double Others)
{
    /// <summary>Nothing worked.</summary>
    public double Idle => Math.Max(
        0, Length - (Decode ?? 0) - (Effects ?? 0) - (Encode ?? 0) - (Presenting ?? 0) - (Pictures ?? 0) - (Tool ?? 0) - Others);

    /// <param name="frames">The settled slots of the passage, in order.</param>
    internal static CoreSeconds? Of(Run run, IReadOnlyList<FrameRecord> frames)
    {
        if (frames.Count == 0)
        {
            return null;
        }

        var (from, to) = (frames[0].SlotStart, frames[^1].SlotStart + run.Header.Timeline.Rate.FrameDuration);
        var loads = LoadMeans.Over(run.Loads, from, to);
        var usable = run.Header.Conditions.UsableCores;
        var busy = loads.Cores(usable);
        if (busy.Count == 0)
        {
            return null;
        }

        var seconds = (to - from).TotalSeconds;
        LoadKind[] own =
            [LoadKind.OwnDecode, LoadKind.OwnEffects, LoadKind.OwnEncode, LoadKind.OwnPresenting, LoadKind.OwnPictures, LoadKind.OwnTool];
        var of = own.Select(kind => loads.Of(kind) * seconds).ToList();
        return new CoreSeconds(
            seconds * usable.Count, of[0], of[1], of[2], of[3], of[4], of[5],
            Math.Max(0, (busy.Sum() * seconds) - of.Sum(part => part ?? 0)));
    }
}

/// <summary>What the decision log says of the frames of a passage.</summary>
/// <param name="Begun">Frames whose decoding began.</param>
/// <param name="Finished">Frames that were finished, also those that were not needed any more.</param>
/// <param name="GivenUp">Frames whose work was ended.</param>
/// <param name="Took">From beginning to finishing, median; null where none was finished.</param>
/// <param name="Error">How much longer than expected when it was chosen, median; negative for shorter; null where none was
/// finished.</param>
/// <param name="LongestError">The largest of those.</param>
public sealed record DecidedFrames(int Begun, int Finished, int GivenUp, TimeSpan? Took, TimeSpan? Error, TimeSpan? LongestError)
{
    /// <param name="start">First timeline frame of the passage.</param>
    /// <param name="end">The frame after its last.</param>
    internal static DecidedFrames Of(IReadOnlyList<Decision> decisions, long start, long end)
    {
        var acts = decisions.Where(one => one.Frame >= start && one.Frame < end).ToLookup(one => one.Act);
        var begun = FirstOf(acts[DecisionAct.Begun]);
        var finished = FirstOf(acts[DecisionAct.Finished]);
        var chosen = acts[DecisionAct.Chosen].GroupBy(one => one.Frame).ToDictionary(frame => frame.Key, frame => frame.Last());
        var took = finished.Where(one => begun.ContainsKey(one.Key))
            .Select(one => (one.Value.At - begun[one.Key].At).TotalSeconds).ToList();
        var errors = finished.Where(one => chosen.GetValueOrDefault(one.Key)?.Basis is not null)
            .Select(one => (one.Value.At - chosen[one.Key].At - chosen[one.Key].Basis!.Expected).TotalSeconds).ToList();
        return new DecidedFrames(
            begun.Count, finished.Count, FirstOf(acts[DecisionAct.GivenUp]).Count, MedianOf(took), MedianOf(errors),
            errors.Count == 0 ? null : TimeSpan.FromSeconds(errors.Max()));
    }

    private static Dictionary<long, Decision> FirstOf(IEnumerable<Decision> acts) =>
        acts.GroupBy(one => one.Frame).ToDictionary(frame => frame.Key, frame => frame.First());

    private static TimeSpan? MedianOf(List<double> seconds) => seconds.Count == 0 ? null : TimeSpan.FromSeconds(seconds.Median());
}
