using HardyBench.Core.Footage;
using HardyBench.Player.Decoding;
using HardyBench.Player.Native;

namespace HardyBench.Player.Effects;

/// <summary>The running filter graph of one passage. Used by one thread at a time; the threads it starts take the
/// name of the thread that made it.</summary>
public sealed class Treatment : IDisposable
{
    private readonly GraphHandle graph;

    /// <exception cref="MediaException">The graph cannot be built.</exception>
    public Treatment(string description, IReadOnlyList<ClipDecoder> layers, FrameRate rate, int threads)
    {
        var inputs = layers.Select(layer => new GraphInput(
            layer.Raster.Width, layer.Raster.Height, layer.PixelFormat, rate.Numerator, rate.Denominator)).ToArray();
        MediaException.Check(
            NativeMethods.GraphOpen(description, inputs.Length, inputs, threads, out var handle), "preparing the effects");
        graph = new GraphHandle(handle);
    }

    /// <summary>Treats one frame of each layer.</summary>
    /// <param name="position">Frame within the passage.</param>
    /// <returns>The treated picture, or null when the effects want later frames first.</returns>
    public FrameHandle? Treat(IReadOnlyList<DecodedFrame> layers, long position)
    {
        var frames = layers.Select(layer => layer.Picture.Pointer).ToArray();
        var code = MediaException.Check(NativeMethods.GraphRun(graph, frames, position, out var treated), "treating a frame");
        return code == NativeMethods.End ? null : new FrameHandle(treated);
    }

    public void Dispose() => graph.Dispose();
}
