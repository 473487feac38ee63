using HardyBench.Core.Advice;
using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using static System.FormattableString;

namespace HardyBench.Core.Wording;

/// <summary>Advice in words.</summary>
public static class AdviceWords
{
    /// <summary>Why this machine, or none; a sentence or more.</summary>
    public static string ReasonFor(Pick pick)
    {
        if (pick.Machine is not { } taken)
        {
            return pick.Played == 0 ? "No machine has played this timeline yet."
                : pick.SomeDisturbed
                    ? "No machine holds every passage in a run that counts; some runs do not count, and have to be played again."
                : $"None of the {pick.Played} machines that played it holds every passage.";
        }

        var tightest = pick.Tightest is { } passage
            ? Invariant($" It has the least headroom in passage {passage.Index + 1}: {passage.Headroom:0.0} times the required rate.")
            : string.Empty;
        var close = pick.IsCloseCall ? " That is a close call: a little more work, or a warmer day, and it drops frames." : string.Empty;
        return $"Every passage holds on it, and it is {(taken.Price is null ? "already yours" : "the cheapest of the machines that have played it and hold it")}.{tightest}{close}";
    }

    /// <summary>Why not this machine; a sentence or more.</summary>
    public static string WhyNot(Passed passed) => passed.Because switch
    {
        RejectionReason.Disturbed => $"Its run does not count: {By(passed.Disturbance!)}. {First(passed.Disturbance!)}",
        RejectionReason.NotPlayed => "It has not played this timeline at full scale yet.",
        RejectionReason.MoreExpensive => Invariant(
            $"Every passage holds on it too, but it costs {passed.More:#,0} {Machine.Currency} more without more frames in this timeline."
        ),
        RejectionReason.Fails => Fails(passed.FirstFailure!),
        RejectionReason.TooShort => "Every passage is too short for a verdict; make them 2 s long or longer.",
        _ => "Its run ended before every passage was judged.",
    };

    /// <summary>Why a run does not count, and what to do first: two sentences.</summary>
    public static string NotCounting(Disturbance disturbance) => $"It does not count: {By(disturbance)}. {First(disturbance)}";

    /// <summary>The same of a run; null of one that counts.</summary>
    public static string? NotCounting(Run run, IReadOnlyList<PassageFinding> findings) =>
        Disturbance.Of(run, findings) is { } disturbance ? NotCounting(disturbance) : null;

    /// <summary>What was wrong with a run that does not count, a phrase.</summary>
    public static string By(Disturbance disturbance) => disturbance switch
    {
        PassageNotPlayed failed => $"passage {failed.Passage + 1} could not be played",
        OthersBusy => "other programs were busy",
        ColdFootage cold => $"the footage of passage {cold.Passage + 1} had to come from the drive first",
        OnBattery => "it ran from the battery",
        FewerCores cores => $"it could use {cores.Could} of its {cores.Has} cores",
        _ => throw new ArgumentOutOfRangeException(nameof(disturbance), disturbance, "This has no wording."),
    };

    /// <summary>What to do before anything can be said, a sentence.</summary>
    public static string First(Disturbance disturbance) => disturbance switch
    {
        PassageNotPlayed => "Create or relink its clips, then play again.",
        OthersBusy => "Close them and play again.",
        ColdFootage => "Play again: now it is in the file cache.",
        OnBattery => "Plug it in and play again.",
        FewerCores => "Let it use all of them and play again.",
        _ => throw new ArgumentOutOfRangeException(nameof(disturbance), disturbance, "This has no wording."),
    };

    /// <summary>What to do after a run and why; a sentence or two.</summary>
    public static string Of(NextStep next) => next switch
    {
        { Act: NextAct.CreateClips } => "A clip could not be played. Create the clips again, then play.",
        { NotCounting: { } why } => why,
        { Act: NextAct.PlayAgain } => "The run ended early. Play it to its end.",
        { Act: NextAct.StepDown } => $"{next.Failing} of {next.Of} passages do not hold, some because effects take too long. "
            + "Step down to find the preview scale that holds.",
        { Failing: 0 } => "Every passage holds. See which machine is the cheapest that does.",
        _ => $"{next.Failing} of {next.Of} passages do not hold. See which machine holds them.",
    };

    private static string Fails(PassageFinding failure) =>
        $"Passage {failure.Index + 1} {(failure.Verdict == Verdict.Breaks ? "breaks" : "wavers")}. "
        + LimiterWords.Evidence(failure);
}
