namespace HardyBench.Core.Trials;

/// <summary>The kinds of trial. Each asks a machine one question and takes one or several runs to answer it.</summary>
public enum TrialKind
{
    /// <summary>Does it play in real time?</summary>
    Play,

    /// <summary>How many frames a second does it get through?</summary>
    Capacity,

    /// <summary>How long does an export take?</summary>
    Export,

    /// <summary>Is the result repeatable?</summary>
    Repeat,

    /// <summary>Does the picture follow while scrubbing?</summary>
    Scrub,

    /// <summary>How long is it from the key to a moving picture?</summary>
    StartLag,

    /// <summary>Which is the first preview scale that holds?</summary>
    StepDown,

    /// <summary>At which step of a ramp does it stop holding?</summary>
    Ramp,

    /// <summary>What does half the frame rate do to the load?</summary>
    HalfRate,

    /// <summary>Does it still hold when it is warm?</summary>
    Soak,

    /// <summary>Does one changed setting or one effect less make a difference?</summary>
    Compare,
}
