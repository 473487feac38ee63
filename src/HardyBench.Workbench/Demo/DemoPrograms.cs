using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Programs;

namespace HardyBench.Workbench.Demo;

/// <summary>Invented editing programs, each at its best on other footage.</summary>
public static class DemoPrograms
{
    private static readonly Raster Widest = new(8192, 8192);

    /// <summary>Leans on graphics units: plain camera footage with much treatment.</summary>
    public static EditingProgram Flyloft { get; } = new(
        "flyloft", "Flyloft", "Relies on the graphics units; old decoders",
        [Row(Codec.Avc, ChromaSubsampling.Quarter, 8), Row(Codec.Hevc, ChromaSubsampling.Quarter, 10)],
        EffectsAt: EffectRaster.Clip, DecoderCores: 2, LookAhead: 12, ReservesGigabytes: 3);

    /// <summary>Does everything on the processor, with every core: intermediates, and machines without a graphics unit.</summary>
    public static EditingProgram Brailwork { get; } = new(
        "brailwork", "Brailwork", "Everything on the processor, with every core",
        [], ComposingPlace.Processor, InColour: true, LookAhead: 8, DecodesSmaller: true, RendersAt: PreviewScale.Half,
        ReservesGigabytes: 1);

    /// <summary>Leans on media engines: long-GOP footage that they take, with little treatment.</summary>
    public static EditingProgram Gantry { get; } = new(
        "gantry", "Gantry", "Relies on media engines; one graphics unit",
        DecoderCores: 4, GraphicsUnits: 1, OnOneCore: ["noise-reduction", "lut", "curves"], LookAhead: 24,
        WhenLate: PlayingPolicy.KeepFrames, ReservesGigabytes: 6);

    public static IReadOnlyList<EditingProgram> All => [Flyloft, Brailwork, Gantry];

    private static FormatCapability Row(Codec codec, ChromaSubsampling chroma, int depth) => new(codec, chroma, depth, Widest);
}
