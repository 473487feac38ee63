namespace HardyBench.Core.Playback;

/// <summary>The player cannot work on this machine at all; the message says what is missing.</summary>
public sealed class PlayerUnavailableException(string message, Exception? cause = null) : Exception(message, cause);
