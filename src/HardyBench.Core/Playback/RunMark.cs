namespace HardyBench.Core.Playback;

/// <summary>What sort of thing a person noticed.</summary>
public enum MarkKind
{
    PictureFault,
    Stutter,
    Fan,
    Noise,
    Crash,
    Other,
}

/// <summary>An observation that a person pinned to a moment of a run.</summary>
/// <param name="At">From the key.</param>
/// <param name="Frame">The timeline frame whose slot it was; null before the first frame, or where no frames were played.</param>
/// <param name="Text">What was noticed; may be empty.</param>
public sealed record RunMark(long Id, TimeSpan At, int? Frame, MarkKind Kind, string Text)
{
    public const int LongestText = 500;
}
