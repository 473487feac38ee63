using HardyBench.Core.Footage;
using HardyBench.Core.Playback;

namespace HardyBench.Player.Playing;

/// <summary>Whatever goes wrong in a passage fails that passage and nothing else.</summary>
internal static class PassageFailures
{
    /// <summary>Expected failures carry their own message; the others are reported as unexpected.</summary>
    public static PassageFailure Of(int index, Exception failure) => new(
        index,
        failure is MediaException or NotSupportedException
            ? failure.Message
            : $"Unexpected error: {failure.Message}");
}
