using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Player.Decoding;
using HardyBench.Player.Native;

namespace HardyBench.Player.Effects;

/// <summary>Treats the frames of one passage, on the device asked for as long as that works and then on the processor.
/// Used by one thread.</summary>
public sealed class PassageTreatment(PassageGraph graph, PlaybackPlan plan, Passage passage, int threads) : IDisposable
{
    private PlaybackSettings settings = plan.Settings;
    private Treatment? treatment;

    /// <summary>Why the device was given up, or null while nothing was.</summary>
    public string? DeviceFailure { get; private set; }

    /// <summary>Builds the graph for frames like these where there is none yet, on the caller's thread.</summary>
    /// <exception cref="MediaException">The effects cannot be done.</exception>
    public void Prepare(IReadOnlyList<DecodedFrame> frames) =>
        OnDeviceOrProcessor(() =>
            treatment ??= graph.Open(plan with { Settings = settings }, passage, [.. frames.Select(frame => frame.Picture)], threads)
        );

    /// <summary>Treats one frame of each layer.</summary>
    /// <returns>The treated picture, or null when the effects want later frames first.</returns>
    /// <exception cref="MediaException">The effects cannot be done.</exception>
    public FrameHandle? Treat(IReadOnlyList<DecodedFrame> frames, long position) => OnDeviceOrProcessor(() =>
    {
        Prepare(frames);
        return treatment!.Treat(frames, position);
    });

    private T OnDeviceOrProcessor<T>(Func<T> work)
    {
        try
        {
            return work();
        }
        catch (MediaException lost) when (settings.EffectsOn is not null && treatment is not { UsesDevice: false })
        {
            DeviceFailure = $"effects on {settings.EffectsOn} failed: {lost.Message} The processor took over";
            settings = settings with { EffectsOn = null };
            Renew();
            return work();
        }
    }

    /// <summary>From the next frame on effects work at another scale.</summary>
    public void ScaleTo(PreviewScale scale)
    {
        settings = settings with { Scale = scale };
        Renew();
    }

    /// <summary>Forgets all frames so far, so that positions can start again.</summary>
    public void Renew()
    {
        treatment?.Dispose();
        treatment = null;
    }

    public void Dispose() => treatment?.Dispose();
}
