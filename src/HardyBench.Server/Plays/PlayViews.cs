using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Trials;
using HardyBench.Server.Runs;
using HardyBench.Store;
using HardyBench.Workbench;

namespace HardyBench.Server.Plays;

/// <summary>What somebody wants played. What is left out has its default, so that timeline and machine alone are a bare run.</summary>
/// <param name="Times">Repeat: runs. Start lag: places a passage. Compare: pairs.</param>
/// <param name="Minutes">Soak: no further round begins after this.</param>
/// <param name="Other">Compare: the second side's settings.</param>
/// <param name="WithoutEffect">Compare: an effect that the second side leaves out.</param>
public sealed record PlayRequest(
    string TimelineId, string MachineId, TrialKind Kind = TrialKind.Play, PlaybackSettings? Settings = null, int Times = 3,
    double Minutes = 10, PlaybackSettings? Other = null, string? WithoutEffect = null);

/// <summary>What a play would be, before it is asked for.</summary>
/// <param name="Differences">What differs from a bare run on the processor, a phrase each.</param>
/// <param name="Problem">Why it makes no sense as it stands, or null.</param>
/// <param name="Seconds">How long it takes; null where that depends on how it goes, and for stand-ins.</param>
/// <param name="Change">What the second side of a comparison changes; null for other trials.</param>
/// <param name="Remarks">What to know before it is played: sentences.</param>
public sealed record PlayPreview(IReadOnlyList<string> Differences, string? Problem, double? Seconds, string? Change, IReadOnlyList<string> Remarks)
{
    public static async Task<PlayPreview> OfAsync(PlayRequest request, Bench bench)
    {
        var settings = request.Settings ?? new PlaybackSettings();
        try
        {
            var plan = new TrialPlan(
                request.Kind, await bench.PlanAsync(request.TimelineId, request.MachineId, settings), request.Times,
                TrialPlan.OfMinutes(request.Minutes), request.Other, request.WithoutEffect).Checked();
            return new PlayPreview(
                settings.Differences(), null, plan.Start.Machine.Kind == MachineKind.This ? TrialCourse.Length(plan)?.TotalSeconds : null,
                plan.Kind == TrialKind.Compare ? TrialChange.InWords(settings, plan.Other, plan.WithoutEffect) : null, plan.Remarks());
        }
        catch (PlanRefusedException refusal)
        {
            return new PlayPreview(settings.Differences(), refusal.Message, null, null, []);
        }
    }
}

/// <summary>A play, in progress or just ended.</summary>
/// <param name="RunId">0 until the player has started.</param>
/// <param name="Step">What the run in play stands for in its trial.</param>
/// <param name="StepCount">How many runs the trial takes; null where that depends on how they go.</param>
/// <param name="ByHand">Whether places are asked for, instead of playing through.</param>
/// <param name="Frames">Slots settled so far, or places asked for, of <paramref name="Of"/>.</param>
/// <param name="FromFrame">Where the run in play begins in the timeline.</param>
/// <param name="Teeth">The slots' fates, so that a page that opens late can draw them all.</param>
/// <param name="Problem">Why it could not be played, in words.</param>
/// <param name="Waiting">What comes next, in order.</param>
/// <param name="Notes">What was unfavourable before the first frame of the run in play.</param>
public sealed record PlayView(
    long RunId, long TrialId, TrialKind Kind, string TimelineId, string TimelineTitle, string MachineId, string MachineName, PreviewScale Scale,
    IReadOnlyList<string> Differences, string Step, int StepNumber, int? StepCount, bool ByHand, bool Running, long Frames, long Of,
    long FromFrame, double FramesPerSecond, string Teeth, string? Problem, IReadOnlyList<WaitingView> Waiting,
    IReadOnlyList<string> Notes)
{
    /// <summary>A trial that is about to begin.</summary>
    internal static PlayView Before(StoredTrial trial, Machine machine) => new(
        0, trial.Id, trial.Asked.Kind, trial.Asked.Timeline.Id, trial.Asked.Timeline.Title, machine.Id, machine.Name, trial.Asked.Settings.Scale,
        trial.Asked.Settings.Differences(), string.Empty, 0, null, trial.Asked.Kind is TrialKind.Scrub or TrialKind.StartLag, true, 0,
        trial.Asked.Timeline.FrameCount, 0, trial.Asked.Timeline.Rate.FramesPerSecond, string.Empty, null, [], []);
}

/// <summary>A trial in the queue.</summary>
public sealed record WaitingView(long TrialId, TrialKind Kind, string TimelineTitle, string MachineId, string MachineName)
{
    internal static WaitingView Of(StoredTrial trial, Machine? machine) =>
        new(trial.Id, trial.Asked.Kind, trial.Asked.Timeline.Title, trial.Asked.MachineId, machine?.Name ?? trial.Asked.MachineId);
}

/// <summary>What a play has brought since the last message.</summary>
/// <param name="From">Timeline frame of the first tooth.</param>
/// <param name="Asked">Places asked for since then.</param>
/// <param name="LastLagMs">How long the newest picture asked for took; null without a new one.</param>
/// <param name="Loads">The newest value of each load worth watching.</param>
public sealed record PlayNews(long RunId, int From, string Teeth, int Asked, double? LastLagMs, IReadOnlyList<LoadNow> Loads)
{
    public static PlayNews Of(long runId, RunProgress progress) => new(
        runId,
        progress.Frames.Count > 0 ? progress.Frames[0].Frame : 0,
        CombTeeth.Of(progress.Frames),
        progress.Lags.Count,
        progress.Lags.Select(lag => lag.Lag?.TotalMilliseconds).LastOrDefault(lag => lag is not null),
        [.. LoadSeries.Of(progress.Loads, TimeSpan.Zero).Where(series => series.Values.Count > 0)
            .Select(series => new LoadNow(series.Group, series.Name, series.Unit, series.Values[^1]))]);
}

/// <summary>A load at this moment.</summary>
public sealed record LoadNow(string Group, string Name, string Unit, double Value);

/// <summary>A small picture of the screen.</summary>
/// <param name="Jpeg">Base64.</param>
public sealed record PlayPicture(long RunId, int Frame, string Jpeg);
