using HardyBench.Core.Footage;

namespace HardyBench.Core.Playback;

/// <summary>The very pictures that playing a passage shows, for a file.</summary>
public interface IPassagePictures
{
    /// <summary>Every frame of a passage, decoded and treated as the plan says: its planes without padding, made while they are
    /// read.</summary>
    /// <param name="index">The passage's place in the plan, from 0.</param>
    /// <exception cref="MediaException">A frame could not be decoded or treated.</exception>
    /// <exception cref="OperationCanceledException">It was stopped.</exception>
    IEnumerable<ReadOnlyMemory<byte>> Of(PlaybackPlan plan, int index, CancellationToken stop);
}
