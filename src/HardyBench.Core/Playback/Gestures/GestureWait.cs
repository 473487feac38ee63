namespace HardyBench.Core.Playback.Gestures;

/// <summary>The longest wait for a picture on a machine, over all of the work.</summary>
/// <param name="Start">From the key to the first picture.</param>
/// <param name="Scrub">From asking for a frame to its picture.</param>
public sealed record GestureWait(TimeSpan Start, TimeSpan Scrub);
