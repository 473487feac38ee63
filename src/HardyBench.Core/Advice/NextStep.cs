using HardyBench.Core.Findings;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Advice;

/// <summary>What is sensible to do after a run.</summary>
public enum NextAct
{
    /// <summary>Play the same again.</summary>
    PlayAgain,

    /// <summary>Play at the next smaller preview scale.</summary>
    StepDown,

    /// <summary>See to the clips first.</summary>
    MendClips,

    /// <summary>Look at the advice.</summary>
    SeeAdvice,
}

/// <summary>The next sensible step and why, in words.</summary>
/// <param name="Scale">For a step down: the scale to play at.</param>
public sealed record NextStep(NextAct Act, PreviewScale? Scale, string Words)
{
    public static NextStep After(Run run, IReadOnlyList<PassageFinding> findings)
    {
        if (run.Failures.Any(failure => !failure.Overcome))
        {
            return new NextStep(NextAct.MendClips, null, "A clip could not be played. Make the clips again, then play.");
        }

        if (run.Ending != RunEnding.Finished)
        {
            return new NextStep(NextAct.PlayAgain, null, "The run ended early. Play it to its end.");
        }

        var failing = findings.Count(finding => finding.Fails);
        if (failing == 0)
        {
            return new NextStep(NextAct.SeeAdvice, null, "Every passage holds. See which machine is the cheapest that does.");
        }

        var effects = findings.Any(finding => finding.Limiter?.Limiter is Limiter.GraphicsEffects or Limiter.ProcessorEffects);
        var scale = run.Header.Settings.Scale;
        return effects && scale != PreviewScale.Eighth
            ? new NextStep(NextAct.StepDown, (PreviewScale)((int)scale * 2),
                $"{failing} of {findings.Count} passages do not hold, some for want of effects power. A smaller preview scale shows where that ends.")
            : new NextStep(NextAct.SeeAdvice, null,
                $"{failing} of {findings.Count} passages do not hold. See which machine holds them.");
    }
}
