namespace HardyBench.Workbench.Playing;

/// <summary>The player ended in the middle of a run, of which all until then is kept; the message names the clip.</summary>
public sealed class PlayerEndedException(string message) : Exception(message);
