using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Limiters;
using HardyBench.Core.Playback;
using static System.FormattableString;
using static HardyBench.Core.Figures;

namespace HardyBench.Core.Wording;

/// <summary>A limiter in words: how it is known, what would help and what would not.</summary>
public static class LimiterWords
{
    /// <summary>Figures, seconds, and before how much of what was judged; one sentence.</summary>
    public static string Evidence(LimiterFinding finding)
    {
        var evidence = finding.Evidence;
        var said = LimiterRule.FiguresOf(finding) is { } figures
            ? $"{char.ToUpperInvariant(figures[0])}{figures[1..]}"
                + Invariant($", from {evidence.From.TotalSeconds:0.0} to {evidence.To.TotalSeconds:0.0} s")
            : evidence is NotPlayed { Why: var why } ? why : "No loads could be read here.";
        return finding.Before is { } before ? $"{said.TrimEnd('.')}, {Before(before)}." : $"{said.TrimEnd('.')}.";
    }

    /// <summary>How the limiter is known, and why nothing is done at the end where the rest was given up; null where there is no
    /// limiter.</summary>
    public static string? Evidence(PassageFinding finding) => finding.Limiter is not { } limiter ? null
        : finding.GivenUpFrom is { } from
            ? Evidence(limiter) + Invariant($" From {from.TotalSeconds:0.0} s on no work was done: no later frame of the passage could be ready in time, so the rest was abandoned.")
        : Evidence(limiter);

    /// <summary>What is at its ceiling besides, and what that means; null where there is nothing.</summary>
    public static string? Second(LimiterFinding finding) => finding.Second is { } second
        ? $"Also at its limit, and next to limit: {Evidence(second)}"
        : null;

    /// <summary>A part of the machine, as a row of headrooms names it.</summary>
    /// <param name="conditions">What its readings were of.</param>
    /// <param name="several">Whether there are more of its kind.</param>
    public static string NameOf(PartHeadroom part, Conditions conditions, bool several) => part.Part switch
    {
        LoadKind.Core => "processor",
        LoadKind.OwnThread => "busiest thread of the player",
        LoadKind.MemoryUsed => "memory",
        LoadKind.DriveBusy when several => $"drive {conditions.NameOf(part.Part, part.Index)}",
        var kind => several ? Invariant($"{BusyDeviceRule.NameOf(kind)} {part.Index + 1}") : BusyDeviceRule.NameOf(kind),
    };

    private static string Before(ShareOfWindows before) => before.Share >= 1
        ? $"before every {(before.AreMisses ? "miss" : "frame that was begun")}"
        : $"before {Percent(before.Share)} of the {(before.AreMisses ? "misses" : "frames that were begun")}";
}
