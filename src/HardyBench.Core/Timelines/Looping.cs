using HardyBench.Core.Footage;

namespace HardyBench.Core.Timelines;

/// <summary>Footage goes round: after its last frame comes its first. The one rule of that, for the player, the check, the editor and what
/// is written out.</summary>
public static class Looping
{
    /// <summary>The frame of a file that is shown for a frame counted on over its loops.</summary>
    /// <param name="number">From 0.</param>
    /// <param name="frameCount">Frames of the file; 0 when it is not known, and then nothing goes round.</param>
    public static long FrameOf(long number, long frameCount) => frameCount > 0 ? number % frameCount : number;

    /// <summary>The timeline with every layer beginning within its clip: what begins past its end begins as far into it.</summary>
    /// <param name="clips">Clips that are known; layers of others stay as they are.</param>
    public static Timeline Within(Timeline timeline, IReadOnlyDictionary<string, Clip> clips) => timeline with
    {
        Passages =
        [
            .. timeline.Passages.Select(passage => passage with { Layers = [.. passage.Layers.Select(layer => Within(layer, clips))] }),
        ],
    };

    private static Layer Within(Layer layer, IReadOnlyDictionary<string, Clip> clips) =>
        clips.TryGetValue(layer.ClipId, out var clip) && layer.StartFrame >= clip.FrameCount && clip.FrameCount > 0
            ? layer with { StartFrame = (int)FrameOf(layer.StartFrame, clip.FrameCount) }
            : layer;
}
