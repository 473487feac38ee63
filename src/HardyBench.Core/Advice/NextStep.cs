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
    CreateClips,

    /// <summary>Look at the advice.</summary>
    SeeAdvice,
}

/// <summary>The next sensible step.</summary>
/// <param name="Scale">For a step down: the scale to play at.</param>
/// <param name="Failing">Passages that do not hold.</param>
/// <param name="Of">All passages.</param>
public sealed record NextStep(NextAct Act, PreviewScale? Scale, int Failing, int Of)
{
    /// <summary>Why the run says nothing of its machine, and what to do, in words; null where it counts, or clips have to be made first.
    /// </summary>
    public string? NotCounting { get; init; }

    /// <param name="scale">At which it was played.</param>
    /// <param name="notCounting">Why the run says nothing of its machine, in words; null where it counts.</param>
    public static NextStep After(RunEnding ending, PreviewScale scale, IReadOnlyList<PassageSummary> passages, string? notCounting)
    {
        var failing = passages.Count(passage => passage.Fails);
        var effects = passages.Any(passage => passage is { Fails: true, Limiter: Limiter.GraphicsEffects or Limiter.ProcessorEffects });
        var act = passages.Any(passage => passage.Failure is not null) ? NextAct.CreateClips
            : ending != RunEnding.Finished || notCounting is not null ? NextAct.PlayAgain
            : effects && scale != PreviewScale.Eighth ? NextAct.StepDown
            : NextAct.SeeAdvice;
        return new NextStep(act, act == NextAct.StepDown ? (PreviewScale)((int)scale * 2) : null, failing, passages.Count)
        {
            NotCounting = act == NextAct.CreateClips ? null : notCounting,
        };
    }
}
