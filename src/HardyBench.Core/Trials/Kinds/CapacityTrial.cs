using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Statistics;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using static System.FormattableString;

namespace HardyBench.Core.Trials.Kinds;

/// <summary>How many frames a second does it get through? Every passage as fast as it goes, without a clock: two machines that both hold a
/// passage are distinguished by it, and so is how far one is from holding it.</summary>
/// <param name="Times">Runs.</param>
public sealed record CapacityTrial(int Times = 3) : Trial(TrialKind.Capacity)
{
    public override string? Problem(PlaybackPlan start) => Times is < 1 or > MaxTimes
        ? $"A capacity trial takes 1 to {MaxTimes} runs, not {Times}."
        : null;

    public override int? StepCount(PlaybackPlan start) => Times;

    /// <summary>The faster it is the shorter, and the other way round.</summary>
    public override TimeSpan? Length(PlaybackPlan start) => null;

    public override TrialStep? Next(PlaybackPlan start, IReadOnlyList<StepOutcome> done, TimeSpan elapsed) =>
        done.Count < Times
        ? new TrialStep(
            new StepRole($"{done.Count + 1} of {Times}"),
            start with
            {
                Settings = start.Settings with { Policy = PlayingPolicy.Unpaced },
            }
        )
        : null;

    protected override string NextStep(IReadOnlyList<StepOutcome> done) =>
        done[^1].Findings.Any(finding => finding.Headroom is > 0 and < 1)
            ? "If it is slower than required, compare with half-raster proxies or another machine."
            : "A soak shows whether it still holds when the machine is warm.";

    protected override TrialAnswer Answer(TrialAnswer blank, Timeline timeline, IReadOnlyList<StepOutcome> done)
    {
        var asked = timeline.Rate.FramesPerSecond;
        return blank with { Rows = Told(blank, row => OfPassage(row, asked)), Words = OfAll(blank.Rows, asked) };
    }

    private static string OfPassage(PassageAnswer row, double asked)
    {
        var rates = Rates(row);
        if (rates.Count == 0)
        {
            return "too few frames to tell";
        }

        var spread = Spread.Of([.. rates]);
        return Invariant($"{spread.Mean:0.0}")
            + (rates.Count > 1 ? Invariant($" ± {spread.Half:0.0}") : string.Empty)
            + Invariant($" a second, {spread.Mean / asked:0.0#} times the required rate");
    }

    private static string OfAll(IReadOnlyList<PassageAnswer> rows, double asked)
    {
        var known = rows.Select(row => (row.Index, Rates: Rates(row))).Where(row => row.Rates.Count > 0)
            .Select(row => (row.Index, Times: row.Rates.Average() / asked)).ToList();
        if (known.Count == 0)
        {
            return "No passage has enough frames for an answer.";
        }

        var (slowest, fewest) = known.MinBy(row => row.Times);
        var enough = known.Count(row => row.Times >= 1);
        return Invariant(
            $"Without a clock {enough} of {known.Count} passages reach the required rate; "
        ) + Invariant($"the slowest, passage {slowest + 1}, reaches {fewest:0.0#} times its rate.");
    }

    private static IReadOnlyList<double> Rates(PassageAnswer row) => [.. Shown(row).Where(rate => rate > 0)];
}
