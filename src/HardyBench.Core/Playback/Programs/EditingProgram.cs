using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Playback.Programs;

/// <summary>How an editing program uses a machine. Stand-ins play as it would; the machine on the bench can play only as the product's own
/// player does, which no program stands for.</summary>
/// <param name="Id">A short name.</param>
/// <param name="OnMediaEngine">What it hands to a media engine, of what the engine takes: each row up to its chroma, depth and raster. Null
/// for everything.</param>
/// <param name="ComposesOn">Where pictures are treated and put together.</param>
/// <param name="EffectsAt">The raster that a layer's effects work at.</param>
/// <param name="InColour">Whether it puts pictures together in red, green and blue, and so converts every layer at the processed raster,
/// treated or not.</param>
/// <param name="OnOneCore">Ids of effects that it works on one core, wherever others run.</param>
/// <param name="DecoderCores">The most cores that one decoder keeps busy; null for as many as the codec can use.</param>
/// <param name="GraphicsUnits">The most graphics units that it shares frames out among.</param>
/// <param name="LookAhead">Treated frames that may wait for their slots.</param>
/// <param name="WhenLate">What it does when it cannot keep up.</param>
/// <param name="DecodesSmaller">Whether a smaller preview scale reaches decoding too, in codecs that hold smaller pictures inside.</param>
/// <param name="RendersAt">The share of the timeline raster that its pre-renders have, on each axis.</param>
/// <param name="ReservesGigabytes">Main memory that it holds besides frames.</param>
public sealed record EditingProgram(
    string Id,
    string Name,
    string Summary = "",
    IReadOnlyList<FormatCapability>? OnMediaEngine = null,
    ComposingPlace ComposesOn = ComposingPlace.Graphics,
    EffectRaster EffectsAt = EffectRaster.Timeline,
    IReadOnlyList<string>? OnOneCore = null,
    bool InColour = false,
    int? DecoderCores = null,
    int GraphicsUnits = EditingProgram.MaxGraphicsUnits,
    int LookAhead = 6,
    PlayingPolicy WhenLate = PlayingPolicy.KeepTime,
    bool DecodesSmaller = false,
    PreviewScale RendersAt = PreviewScale.Full,
    double ReservesGigabytes = 0)
{
    /// <summary>As many as a machine can have.</summary>
    public const int MaxGraphicsUnits = MachineLimits.MaxParts;

    /// <summary>Whether it hands a format to a media engine that takes it.</summary>
    public bool SendsToEngine(ClipFormat format) => OnMediaEngine is null || OnMediaEngine.Any(row => row.Covers(format));

    /// <summary>Whether it works an effect on one core.</summary>
    public bool WorksOnOneCore(string? effect) => effect is not null && OnOneCore?.Contains(effect) == true;
}

/// <summary>Where pictures are treated and put together.</summary>
public enum ComposingPlace
{
    /// <summary>On a graphics unit where there is one, else on the processor.</summary>
    Graphics,

    /// <summary>On the processor, whatever else there is.</summary>
    Processor,
}

/// <summary>The raster that a layer's effects work at.</summary>
public enum EffectRaster
{
    /// <summary>The timeline's: a layer is scaled first.</summary>
    Timeline,

    /// <summary>The clip's: a layer is scaled last, so that a smaller timeline saves its effects nothing.</summary>
    Clip,
}
