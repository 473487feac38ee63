using HardyBench.Core.Playback;

namespace HardyBench.Server.Runs;

/// <summary>An observation to pin: at a moment, at a frame, or while it plays as long ago as the key was pressed.</summary>
/// <param name="AtMs">Milliseconds from the key; null to go by the frame.</param>
/// <param name="Frame">Timeline frame; null to go by the moment. Without any it is the newest moment kept.</param>
/// <param name="AgoMs">Milliseconds since it was noticed, while the run plays; counts where neither of the others is given.</param>
public sealed record MarkRequest(MarkKind Kind, double? AtMs = null, int? Frame = null, string Text = "", double? AgoMs = null)
{
    /// <summary>The moment that is meant; null to go by the frame, or by the newest moment.</summary>
    /// <param name="ago">Finds the moment of the run that was so long ago.</param>
    public TimeSpan? At(Func<TimeSpan, TimeSpan?> ago) =>
        AtMs is { } ms ? Milliseconds(ms)
        : Frame is null && AgoMs is { } since ? ago(Milliseconds(Math.Max(0, since)))
        : null;

    private static TimeSpan Milliseconds(double ms) => TimeSpan.FromMilliseconds(Math.Clamp(ms, -1e12, 1e12));
}

/// <summary>Runs to delete or restore.</summary>
public sealed record RunIds(IReadOnlyList<long> Ids, bool Deleted);
