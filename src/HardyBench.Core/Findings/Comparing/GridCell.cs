namespace HardyBench.Core.Findings.Comparing;

/// <summary>What a machine has shown of a passage, or of a whole timeline.</summary>
/// <param name="Verdict">Of a timeline: its worst passage's. Null without one.</param>
/// <param name="Limiter">Of a timeline: the one of the passage that shows the least.</param>
/// <param name="Share">Frames shown ÷ slots; of a timeline the mean over its passages.</param>
/// <param name="Headroom">Where it holds; of a timeline that of its tightest passage.</param>
/// <param name="Holds">Passages that hold.</param>
/// <param name="Judged">Passages with a verdict.</param>
/// <param name="NotCounting">Why the run says nothing of the machine, in words: then there is no verdict. Null where it counts.</param>
public sealed record GridCell(
    long Run, Verdict? Verdict, Limiter? Limiter, double Share, double? Headroom, int Holds, int Judged, string? NotCounting = null)
{
    /// <param name="slots">At least 1.</param>
    public static GridCell Of(
        long run, Verdict? verdict, Limiter? limiter, int shown, int slots, double? headroom, string? notCounting = null) =>
        notCounting is null
            ? new(
                run, verdict, limiter, (double)shown / slots, headroom, verdict == Findings.Verdict.Holds ? 1 : 0, verdict is null ? 0 : 1)
            : new(run, null, null, (double)shown / slots, null, 0, 0, notCounting);

    /// <summary>A timeline's, from those of its passages; null without any.</summary>
    public static GridCell? Of(IReadOnlyList<GridCell> passages) => passages.Count == 0 ? null : new GridCell(
        passages[0].Run,
        passages.Max(passage => passage.Verdict),
        passages.Where(passage => passage.Limiter is not null).MinBy(passage => passage.Share)?.Limiter,
        passages.Average(passage => passage.Share),
        passages.All(passage => passage.Headroom is not null || passage.Verdict is null or Findings.Verdict.Holds)
            ? passages.Min(passage => passage.Headroom)
            : null,
        passages.Sum(passage => passage.Holds),
        passages.Sum(passage => passage.Judged),
        passages[0].NotCounting);
}
