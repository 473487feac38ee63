namespace HardyBench.Core.Playback.Hand;

/// <summary>The longest wait for a picture on a machine, over all of the work.</summary>
/// <param name="Start">From the key to the first picture.</param>
/// <param name="Scrub">From asking for a frame to its picture.</param>
public sealed record HandWait(TimeSpan Start, TimeSpan Scrub);
