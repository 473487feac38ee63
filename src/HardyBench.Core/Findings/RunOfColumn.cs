using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>A run that a column of the sheet can show: of the timeline as it stands, on the column's machine, at the sheet's preview
/// scale.</summary>
/// <param name="Differences">What differs from a bare run besides the scale, a phrase each.</param>
/// <param name="NotCounting">Why it does not count for its machine, and what to do, in words; null where it counts.</param>
public sealed record RunOfColumn(
    long Id, DateTimeOffset StartedAt, RunEnding Ending, IReadOnlyList<string> Differences, string? NotCounting = null)
{
    /// <summary>Whether it played to the end with every aid off and nothing else changed.</summary>
    public bool IsCompleteBare => Ending == RunEnding.Finished && Differences.Count == 0;

    /// <summary>The run that a column shows: the one that a person picked, else the newest complete bare one that counts, else the
    /// newest complete bare one. A run that was stopped or had an aid never takes the place of a bare one by being newer, nor one that was
    /// disturbed that of one that was not.</summary>
    /// <param name="newestFirst">All that the column can show.</param>
    /// <param name="picked">Ids that a person picked, of this column or others.</param>
    /// <returns>Its id; null when nothing was picked and there is no complete bare run.</returns>
    public static long? Shown(IReadOnlyList<RunOfColumn> newestFirst, IReadOnlyCollection<long> picked) =>
        (newestFirst.FirstOrDefault(run => picked.Contains(run.Id))
            ?? newestFirst.FirstOrDefault(run => run is { IsCompleteBare: true, NotCounting: null })
            ?? newestFirst.FirstOrDefault(run => run.IsCompleteBare))?.Id;
}
