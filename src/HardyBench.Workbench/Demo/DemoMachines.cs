using HardyBench.Core.Footage;
using HardyBench.Core.Machines;

namespace HardyBench.Workbench.Demo;

/// <summary>Stand-ins that ship with the product. Makers and models are made up.</summary>
public static class DemoMachines
{
    private static readonly Raster Large = new(8192, 4320);

    public static IReadOnlyList<Machine> All { get; } = [Slate(), Desktop(), Tower()];

    private static Machine Slate() => new(
        "sandpiper-slate", "Sandpiper slate", MachineKind.StandIn, "Fanless, four small cores, built-in graphics",
        new Processor("Sandpiper S4", 4, 4, 0.8, 2.4),
        new Graphics("built in", 900, 55, 4, null),
        new MediaEngine("Sandpiper media block", 700,
        [
            new DecodeCapability(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Uhd),
            new DecodeCapability(Codec.Hevc, ChromaSubsampling.Quarter, 10, Raster.Uhd),
        ]),
        new Memory(8, 3.5, 1, 4800),
        new Drive("NVMe", 1800, TimeSpan.FromMicroseconds(90)),
        new Cooling(Fanless: true, 3.2, 70, 24, 92, 4, 24),
        Price: 890);

    private static Machine Desktop() => new(
        "curlew-desk", "Curlew desk", MachineKind.StandIn, "Eight cores, capable media engine, middling graphics",
        new Processor("Curlew C8", 8, 16, 1.5, 4.2),
        new Graphics("Curlew G2", 6000, 280, 8, 12),
        new MediaEngine("Curlew media engine", 1500,
        [
            new DecodeCapability(Codec.Avc, ChromaSubsampling.Half, 10, Large),
            new DecodeCapability(Codec.Hevc, ChromaSubsampling.Half, 10, Large),
        ]),
        new Memory(32, 5, 2, 5600),
        new Drive("NVMe", 3500, TimeSpan.FromMicroseconds(70)),
        new Cooling(Fanless: false, 0.4, 220, 24, 95, 45, 140),
        Price: 1690);

    private static Machine Tower() => new(
        "gannet-tower", "Gannet tower", MachineKind.StandIn, "Strong graphics, old processor and media engine",
        new Processor("Gannet T4", 4, 8, 0.8, 3.4),
        new Graphics("Gannet X9", 24000, 700, 24, 12),
        new MediaEngine("Gannet media engine, first series", 400,
        [
            new DecodeCapability(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Hd),
        ]),
        new Memory(64, 5, 4, 3200),
        new Drive("SATA", 500, TimeSpan.FromMicroseconds(150)),
        new Cooling(Fanless: false, 0.35, 300, 24, 90, 80, 180),
        Price: 3480);
}
