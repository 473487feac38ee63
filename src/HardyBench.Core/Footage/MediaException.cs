namespace HardyBench.Core.Footage;

/// <summary>Reading, decoding or treating failed; the message names the thing and says why.</summary>
public sealed class MediaException(string message) : Exception(message);
