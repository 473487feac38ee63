namespace HardyBench.Formats.Interchange;

/// <summary>The text is not a timeline that can be read; the message says where and why.</summary>
public sealed class InterchangeException(string message, Exception? cause = null) : Exception(message, cause);
