namespace HardyBench.Core.Trials;

/// <summary>The kinds of trial. Each asks a machine one question and takes one or several runs to answer it.</summary>
public enum TrialKind
{
    /// <summary>Does it play in real time?</summary>
    Play,

    /// <summary>How many frames a second does it get through?</summary>
    Capacity,

    /// <summary>How long does it take to write the film?</summary>
    Export,

    /// <summary>Does it play so every time?</summary>
    Repeat,

    /// <summary>Does the picture keep up with the hand?</summary>
    Scrub,

    /// <summary>How long is it from the key to a moving picture?</summary>
    StartLag,

    /// <summary>Which is the first preview scale that holds?</summary>
    StepDown,

    /// <summary>At which step of a ramp does it stop holding?</summary>
    Ramp,

    /// <summary>What does half the frame rate do to the load?</summary>
    HalfRate,

    /// <summary>Does it still play so when it is hot?</summary>
    Soak,

    /// <summary>Does one changed setting or one effect less make a difference?</summary>
    Compare,
}
