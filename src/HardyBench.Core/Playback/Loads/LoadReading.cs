namespace HardyBench.Core.Playback;

/// <summary>One reading of one load. What could not be read has no reading; it is never zero.</summary>
/// <param name="At">End of the interval it stands for, from the key that started the run.</param>
public readonly record struct LoadReading(TimeSpan At, LoadKind Kind, int Index, float Value);
