using FFMpegCore.Pipes;

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
        var master = new StageMaster(recipe.Raster);
        var picture = new ushort[master.PictureBytes / sizeof(ushort)];
        for (var frame = 0; frame < recipe.FrameCount; frame++)
        {
            drawn(frame);
            master.Draw((int)(recipe.Rate.StartOf(frame) * StageMaster.TicksPerSecond / TimeSpan.FromSeconds(1)), picture);
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
