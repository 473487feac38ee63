using HardyBench.Core.Footage.Strips;
using HardyBench.Player.Decoding;
using HardyBench.Player.Effects;

namespace HardyBench.Player.Strips;

/// <summary>Reads the index strip of every frame of a file.</summary>
public static class StripReader
{
    /// <summary>One reading a frame in the order in which they are shown; null where a strip is missing or in doubt.</summary>
    /// <param name="frames">Frames to read from the start; the file is looped when it has fewer.</param>
    /// <exception cref="MediaException">The file is missing, no clip, or damaged.</exception>
    public static IEnumerable<StripReading?> Read(string path, int frames, int threads)
    {
        using var decoder = new ClipDecoder(path, threads);
        var (width, rows) = (decoder.Raster.Width, IndexStrip.HeightIn(decoder.Raster.Height));
        Treatment? strip = null;
        try
        {
            for (var position = 0; position < frames; position++)
            {
                using var frame = decoder.Next();
                // Only the strip is brought to 8 bits of brightness, so that reading costs little beside decoding.
                strip ??= new Treatment(
                    $"[in0]crop={width}:{rows}:0:ih-{rows}:exact=1,format=gray[out]", [frame.Picture], decoder.Rate, threads: 1);
                using var picture = strip.Treat([frame], position);
                yield return picture is null ? null : IndexStrip.ReadRows(picture.CopyPlanes(), width, rows, width);
            }
        }
        finally
        {
            strip?.Dispose();
        }
    }
}
