using System.Runtime.InteropServices;
using HardyBench.Core.Footage.Strips;
using HardyBench.Core.Timelines;
using HardyBench.Media.Commands;

namespace HardyBench.Media.Clips;

/// <summary>The master's pictures for one recipe, as raw video for an encoder.</summary>
internal static class MasterVideo
{
    /// <summary>Draws one picture after another while the encoder reads them.</summary>
    /// <param name="drawn">Hears how many pictures have been handed over.</param>
    public static RawVideo For(ClipRecipe recipe, Action<int> drawn) =>
        new(recipe.Raster, "yuv422p10le", recipe.Rate, Pictures(recipe, drawn));

    private static IEnumerable<ReadOnlyMemory<byte>> Pictures(ClipRecipe recipe, Action<int> drawn)
    {
        var (master, tag) = (new StageMaster(recipe.Raster, recipe.Look), IndexStrip.TagOf(recipe.Id));
        var (samples, bytes) = (new ushort[master.PictureBytes / sizeof(ushort)], new byte[master.PictureBytes]);
        for (var frame = 0; frame < recipe.FrameCount; frame++)
        {
            drawn(frame);
            var label = recipe.Strip ? new PictureLabel(tag, frame, Timecode.Of(frame, recipe.Rate)) : null;
            master.Draw((int)(recipe.Rate.StartOf(frame) * StageMaster.TicksPerSecond / TimeSpan.FromSeconds(1)), label, samples);
            MemoryMarshal.AsBytes(samples.AsSpan()).CopyTo(bytes);
            yield return bytes;
        }
    }
}
