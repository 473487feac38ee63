using FFMpegCore.Pipes;
using HardyBench.Core.Footage.Strips;
using HardyBench.Core.Timelines;

namespace HardyBench.Player.Clips;

/// <summary>The master's pictures for one recipe, as raw video for an encoder.</summary>
internal static class MasterVideo
{
    /// <summary>Draws one picture after another while the encoder reads them.</summary>
    /// <param name="drawn">Hears how many pictures have been handed over.</param>
    public static RawVideoPipeSource For(ClipRecipe recipe, Action<int> drawn) =>
        new(Pictures(recipe, drawn)) { FrameRate = recipe.Rate.FramesPerSecond };

    private static IEnumerable<IVideoFrame> Pictures(ClipRecipe recipe, Action<int> drawn)
    {
        var (master, tag) = (new StageMaster(recipe.Raster, recipe.Look), IndexStrip.TagOf(recipe.Id));
        var picture = new ushort[master.PictureBytes / sizeof(ushort)];
        for (var frame = 0; frame < recipe.FrameCount; frame++)
        {
            drawn(frame);
            var label = recipe.Strip ? new PictureLabel(tag, frame, Timecode.Of(frame, recipe.Rate)) : null;
            master.Draw((int)(recipe.Rate.StartOf(frame) * StageMaster.TicksPerSecond / TimeSpan.FromSeconds(1)), label, picture);
            yield return new Picture(recipe.Raster.Width, recipe.Raster.Height, picture);
        }
    }

    private sealed class Picture(int width, int height, ushort[] samples) : IVideoFrame
    {
        public int Width => width;

        public int Height => height;

        public string Format => "yuv422p10le";

        public void Serialize(Stream pipe) => pipe.Write(Bytes());

        public Task SerializeAsync(Stream pipe, CancellationToken token) => pipe.WriteAsync(Bytes(), token).AsTask();

        private byte[] Bytes()
        {
            var bytes = new byte[samples.Length * sizeof(ushort)];
            Buffer.BlockCopy(samples, 0, bytes, 0, bytes.Length);
            return bytes;
        }
    }
}
