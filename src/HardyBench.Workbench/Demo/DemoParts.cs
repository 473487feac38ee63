using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;

namespace HardyBench.Workbench.Demo;

/// <summary>Parts that ship with the product. Makers, models and prices are made up.</summary>
public static class DemoParts
{
    private const string Brant = "Brant 6", Smew = "Smew X";
    private static readonly DateOnly PricedOn = new(2026, 11, 2);
    private static readonly Raster Large = new(8192, 4320);

    public static IReadOnlyList<Part> All { get; } =
    [
        .. Processors(), .. Boards(), .. Memory(), .. Graphics(), .. Drives(), .. Supplies(), .. Coolers(), .. Cases(),
    ];

    private static IEnumerable<Part> Processors() =>
    [
        Processor("brant-4", "Brant B4", 95, Brant, 4, 1.15, 3.9, 55, BuiltIn(700)),
        Processor("brant-6", "Brant B6", 165, Brant, 6, 1.3, 4.2, 65, BuiltIn(1100)),
        Processor("brant-6p", "Brant B6 without graphics", 145, Brant, 6, 1.3, 4.2, 65, null),
        Processor("brant-8", "Brant B8", 260, Brant, 8, 1.4, 4.4, 95, BuiltIn(1100)),
        Processor("brant-8g", "Brant B8 with large graphics", 330, Brant, 8, 1.35, 4.3, 95, BuiltIn(4200)),
        Processor("brant-10", "Brant B10", 360, Brant, 10, 1.45, 4.6, 125, BuiltIn(1400)),
        Processor("brant-14", "Brant B14", 490, Brant, 14, 1.5, 4.8, 150, BuiltIn(1400), slow: 6),
        Processor("smew-12", "Smew S12", 540, Smew, 12, 1.5, 4.5, 140, null),
        Processor("smew-16", "Smew S16", 760, Smew, 16, 1.55, 4.6, 170, null),
        Processor("smew-24", "Smew S24", 1280, Smew, 24, 1.5, 4.4, 240, null),
        Processor("smew-32", "Smew S32", 1890, Smew, 32, 1.45, 4.2, 280, null),
    ];

    private static IEnumerable<Part> Boards() =>
    [
        Board("brant-small", "Brant board, small", 95, Brant, 2, 64, 1, 1, 2, BoardSize.Small),
        Board("brant-middle", "Brant board", 120, Brant, 4, 128, 1, 2, 4, BoardSize.Middle),
        Board("brant-large", "Brant board, two long slots", 210, Brant, 4, 192, 2, 3, 6, BoardSize.Large),
        Board("smew-middle", "Smew board", 230, Smew, 4, 192, 1, 2, 4, BoardSize.Middle),
        Board("smew-large", "Smew board, two long slots", 340, Smew, 4, 256, 2, 4, 8, BoardSize.Large),
        Board("smew-eight", "Smew board, eight memory slots", 620, Smew, 8, 512, 2, 4, 8, BoardSize.Large),
    ];

    private static IEnumerable<Part> Memory() =>
    [
        Sticks("8x1", 1, 8, 28), Sticks("8x2", 2, 8, 52), Sticks("16x1", 1, 16, 48), Sticks("16x2", 2, 16, 92), Sticks("32x2", 2, 32, 178),
        Sticks("16x4", 4, 16, 190), Sticks("48x2", 2, 48, 290), Sticks("32x4", 4, 32, 370),
        new MemoryPart("fast-16x2", "Swift memory, 2 × 16 GB", 139, "DDR5", 2, 16, 7200) { PricedOn = PricedOn },
        new MemoryPart("old-8x2", "Memory of the older kind, 2 × 8 GB", 34, "DDR4", 2, 8, 3200) { PricedOn = PricedOn },
    ];

    private static IEnumerable<Part> Graphics() =>
    [
        Unit("rail-3", "Rail R3", 170, 3800, 190, 6, 75, 170, Plain("Rail engine", 900)),
        Unit("rail-4", "Rail R4", 240, 6200, 260, 8, 115, 210, Plain("Rail engine", 1100)),
        Unit("rail-5", "Rail R5", 330, 9000, 340, 8, 150, 240, Plain("Rail engine", 1300)),
        Unit("rail-6", "Rail R6", 450, 13000, 430, 12, 190, 270, Rich("Rail engine, 4:2:2", 1500)),
        Unit("rail-7", "Rail R7", 620, 18000, 560, 12, 220, 290, Rich("Rail engine, 4:2:2", 1700)),
        Unit("rail-8", "Rail R8", 880, 26000, 720, 16, 285, 310, Rich("Rail engine, 4:2:2", 1900)),
        Unit("rail-9", "Rail R9", 1490, 42000, 960, 24, 360, 340, Rich("Rail engine, 4:2:2", 2000)),
        Unit("crake-2", "Crake C2", 150, 4200, 220, 8, 80, 180, Rich("Crake engine", 800)),
        Unit("crake-4", "Crake C4", 290, 8000, 300, 12, 140, 230, Rich("Crake engine", 1200)),
        Unit("crake-6", "Crake C6", 410, 11000, 380, 16, 180, 260, Rich("Crake engine", 1400)),
    ];

    private static IEnumerable<Part> Drives() =>
    [
        Drive("mechanical-4", "Mechanical drive, 4 TB", 110, DriveInterface.Sata, "mechanical", 190, 180, 12),
        Drive("sata-1", "SATA drive, 1 TB", 65, DriveInterface.Sata, "SATA", 530, 480, 0.15),
        Drive("sata-2", "SATA drive, 2 TB", 120, DriveInterface.Sata, "SATA", 540, 500, 0.14),
        Drive("nvme-1", "NVMe drive, 1 TB", 72, DriveInterface.Nvme, "NVMe", 3400, 2800, 0.08),
        Drive("nvme-2", "NVMe drive, 2 TB", 128, DriveInterface.Nvme, "NVMe", 3600, 3000, 0.08),
        Drive("nvme-fast-1", "NVMe drive, fast, 1 TB", 112, DriveInterface.Nvme, "fast NVMe", 7000, 6000, 0.06),
        Drive("nvme-fast-2", "NVMe drive, fast, 2 TB", 190, DriveInterface.Nvme, "fast NVMe", 7200, 6400, 0.06),
        Drive("nvme-top-2", "NVMe drive, fastest, 2 TB", 290, DriveInterface.Nvme, "fastest NVMe", 12000, 10500, 0.05),
    ];

    private static IEnumerable<Part> Supplies() =>
    [
        .. new[] { (300, 45), (450, 62), (550, 78), (650, 95), (750, 115), (850, 139), (1000, 178), (1300, 259) }.Select(supply =>
            new SupplyPart($"supply-{supply.Item1}", $"Power supply, {supply.Item1} W", supply.Item2, supply.Item1) { PricedOn = PricedOn }),
    ];

    private static IEnumerable<Part> Coolers() =>
    [
        Cooler("cooler-flat", "Flat cooler", 32, 95, 55, 39), Cooler("cooler-plain", "Plain cooler", 24, 125, 125, 41),
        Cooler("cooler-tall", "Tall cooler", 48, 180, 158, 35), Cooler("cooler-twin", "Twin cooler", 89, 250, 165, 32),
        Cooler("cooler-water", "Water cooler", 139, 300, 120, 34), Cooler("cooler-quiet", "Quiet cooler", 99, 150, 160, 26),
    ];

    private static IEnumerable<Part> Cases() =>
    [
        Housing("case-small", "Small case", 85, MachineForm.SmallDesktop, BoardSize.Small, 240, 70),
        Housing("case-cube", "Cube", 120, MachineForm.SmallDesktop, BoardSize.Small, 300, 140),
        Housing("case-plain", "Plain tower case", 62, MachineForm.Tower, BoardSize.Middle, 310, 160),
        Housing("case-wide", "Wide tower case", 110, MachineForm.Tower, BoardSize.Large, 360, 170),
        Housing("case-damped", "Damped tower case", 149, MachineForm.Tower, BoardSize.Large, 340, 170),
    ];

    private static ProcessorPart Processor(
        string id, string name, decimal price, string socket, int cores, double speed, double clock, double watts, Graphics? builtIn,
        int slow = 0) => new(
        id, name, price, socket,
        new Processor(name, cores, (2 * cores) - slow, speed, clock, slow, slow > 0 ? 0.7 * speed : null, 256), watts, builtIn,
        builtIn is null ? null : Plain("Brant media block", 700)) { PricedOn = PricedOn };

    private static Graphics BuiltIn(double gigaflops) => new("built in", gigaflops, 85, 4, null);

    private static BoardPart Board(
        string id, string name, decimal price, string socket, int slots, double most, int graphics, int nvme, int sata, BoardSize size) =>
        new(id, name, price, socket, "DDR5", slots, most, graphics, nvme, sata, size) { PricedOn = PricedOn };

    private static MemoryPart Sticks(string id, int sticks, double gigabytes, decimal price) =>
        new($"memory-{id}", $"Memory, {sticks} × {gigabytes} GB", price, "DDR5", sticks, gigabytes, 5600) { PricedOn = PricedOn };

    private static GraphicsPart Unit(
        string id, string name, decimal price, double gigaflops, double bandwidth, double gigabytes, double watts, double millimetres,
        MediaEngine engine) => new(
        id, name, price, new Graphics(name, gigaflops, bandwidth, gigabytes, Math.Round(BusRate.GigabytesPerSecond(4, 16), 2)), watts,
        millimetres, engine) { PricedOn = PricedOn };

    private static DrivePart Drive(
        string id, string name, decimal price, DriveInterface plug, string words, double read, double write, double latency) =>
        new(id, name, price, plug, words, read, write, latency) { PricedOn = PricedOn };

    private static CoolerPart Cooler(string id, string name, decimal price, double watts, double millimetres, double decibels) =>
        new(id, name, price, watts, millimetres, decibels) { PricedOn = PricedOn };

    private static CasePart Housing(
        string id, string name, decimal price, MachineForm form, BoardSize largest, double graphics, double cooler) =>
        new(id, name, price, form, largest, graphics, cooler) { PricedOn = PricedOn };

    /// <summary>Without 4:2:2, as most are.</summary>
    private static MediaEngine Plain(string name, double megapixels) => Engine(name, megapixels, ChromaSubsampling.Quarter);

    private static MediaEngine Rich(string name, double megapixels) => Engine(name, megapixels, ChromaSubsampling.Half);

    private static MediaEngine Engine(string name, double megapixels, ChromaSubsampling richest) => new(name, megapixels,
    [
        new FormatCapability(Codec.Avc, ChromaSubsampling.Quarter, 8, Large),
        new FormatCapability(Codec.Hevc, richest, 10, Large),
    ])
    {
        Encodes = DemoMachines.ForDelivery(Large), EncodedMegapixelsPerSecond = megapixels * DemoMachines.EncodesPerDecoded,
    };
}
