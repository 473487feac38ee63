using HardyBench.Core.Footage;
using HardyBench.Player.Decoding;
using HardyBench.Player.Native;

namespace HardyBench.Player.Effects;

/// <summary>The running filter graph of one passage. Used by one thread at a time; the threads it starts take the
/// name of the thread that made it.</summary>
public class Treatment : IDisposable
{
    private readonly GraphHandle graph;

    /// <param name="like">A frame of each layer, which say what the graph has to take.</param>
    /// <param name="rate">Of positions.</param>
    /// <param name="device">What filters that need a device run on, or null.</param>
    /// <exception cref="MediaException">The graph cannot be built.</exception>
    public Treatment(string description, IReadOnlyList<FrameHandle> like, FrameRate rate, int threads, string? device = null)
    {
        var inputs = like.Select(frame =>
        {
            NativeMethods.FrameAbout(frame, out var width, out var height, out var pixelFormat, out _);
            return new GraphInput(width, height, pixelFormat, rate.Numerator, rate.Denominator);
        }).ToArray();
        Outcome.Check(
            NativeMethods.GraphOpen(description, inputs.Length, inputs, threads, device, out var handle), "preparing the effects");
        graph = new GraphHandle(handle);
        UsesDevice = device is not null;
    }

    /// <summary>Whether part of it runs on a device.</summary>
    public bool UsesDevice { get; }

    /// <summary>Treats one frame of each layer.</summary>
    /// <param name="position">Frame within the passage.</param>
    /// <returns>The treated picture, or null when the effects want later frames first.</returns>
    public virtual FrameHandle? Treat(IReadOnlyList<DecodedFrame> layers, long position)
    {
        Give(layers, position);
        return Take(out _);
    }

    /// <summary>Gives one frame of each layer.</summary>
    public void Give(IReadOnlyList<DecodedFrame> layers, long position) =>
        Outcome.Check(NativeMethods.GraphGive(graph, [.. layers.Select(layer => layer.Picture.Pointer)], position), "treating a frame");

    /// <summary>Takes a picture that is ready; null when the effects want another frame first.</summary>
    /// <param name="moment">Its place, in frames of the graph's output rate.</param>
    public FrameHandle? Take(out long moment)
    {
        moment = 0;
        if (Outcome.Check(NativeMethods.GraphTake(graph, out var pointer), "treating a frame") == NativeMethods.End)
        {
            return null;
        }

        var frame = new FrameHandle(pointer);
        NativeMethods.FrameAbout(frame, out _, out _, out _, out moment);
        return frame;
    }

    public void Dispose()
    {
        graph.Dispose();
        GC.SuppressFinalize(this);
    }
}
