using System.Diagnostics;
using System.Globalization;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Player.Decoding;

namespace HardyBench.Player.Effects;

/// <summary>A retimed layer whose missing frames are made from their neighbours: blended, or moved along the motion
/// between them.</summary>
public sealed class InterpolatedLayer(LayerDecoding frames, Layer layer, FrameRate timeline, int threads) : ILayerFrames
{
    /// <summary>Further ahead than this many frames, making begins afresh there instead of running up to it.</summary>
    private const int RunUpTo = 2;

    private Treatment? making;
    private long nextSource;
    private long nextPosition;

    /// <summary>Whether a layer is retimed so that frames have to be made.</summary>
    public static bool IsNeeded(Layer layer) => layer.Retime is { Speed: > 0, Method: not RetimeMethod.Repeat };

    /// <summary>The filter that makes frames.</summary>
    public static string Filter(RetimeMethod method, FrameRate timeline) => string.Create(
        CultureInfo.InvariantCulture,
        $"minterpolate=fps={timeline.Numerator}/{timeline.Denominator}:mi_mode={(method == RetimeMethod.Blend ? "blend" : "mci")}:scd=none"
    );

    /// <summary>The rate at which source frames run by, as the filter receives it.</summary>
    public static FrameRate RunningRate(FrameRate source, double speed)
    {
        const int Steps = 10_000;
        return FrameRate.Of((Int128)source.Numerator * (long)Math.Round(speed * Steps), (Int128)source.Denominator * Steps);
    }

    /// <inheritdoc />
    public IReadOnlyList<string> Overcome => frames.Overcome;

    /// <inheritdoc />
    public bool HasFrame => frames.HasFrame;

    /// <inheritdoc />
    public DecodedFrame? Take(long position)
    {
        // Frames are made in places counted from the layer's start, some of which may lie before the passage.
        var place = position + layer.Skipped;
        if (making is null || place > nextPosition + RunUpTo)
        {
            making?.Dispose();
            making = null;
            nextSource = frames.SourceFrame(position);
        }

        var (read, decode, made) = (TimeSpan.Zero, TimeSpan.Zero, TimeSpan.Zero);
        while (true)
        {
            var began = Stopwatch.GetTimestamp();
            while (making?.Take(out var moment) is { } picture)
            {
                nextPosition = moment + 1;
                if (moment >= place)
                {
                    made += Stopwatch.GetElapsedTime(began);
                    return moment == place ? new DecodedFrame(picture, position, read, decode, TimeSpan.Zero, made) : Past(picture);
                }

                picture.Dispose();
            }

            made += Stopwatch.GetElapsedTime(began);
            if (frames.TakeSource(nextSource) is not { } source)
            {
                making?.Dispose();
                making = null;
                return null;
            }

            (read, decode, began) = (read + source.Read, decode + source.Decode, Stopwatch.GetTimestamp());
            using (source)
            {
                making ??= new Treatment(
                    $"[in0]{Filter(layer.Retime!.Method, timeline)}[out]", [source.Picture],
                    RunningRate(frames.Source.Rate, layer.Retime.Speed), threads);
                making.Give([source], nextSource++ - layer.StartFrame);
            }

            made += Stopwatch.GetElapsedTime(began);
        }
    }

    /// <summary>Later frames may be made from what was decoded, so all of it stays.</summary>
    public TimeSpan PassOver(long position) => TimeSpan.Zero;

    public void Dispose()
    {
        making?.Dispose();
        frames.Dispose();
    }

    private static DecodedFrame? Past(Native.FrameHandle picture)
    {
        picture.Dispose();
        return null;
    }
}
