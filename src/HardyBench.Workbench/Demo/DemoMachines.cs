using HardyBench.Core.Footage;
using HardyBench.Core.Machines;

namespace HardyBench.Workbench.Demo;

/// <summary>Stand-ins that ship with the product. Makers and models are made up. Families differ in one part; a chip without its
/// built-in graphics lacks the media engine in it, too.</summary>
public static class DemoMachines
{
    private static readonly Raster Large = new(8192, 4320);

    /// <summary>The stand-ins beside this machine on a sheet for which nobody has chosen others.</summary>
    public static IReadOnlyList<string> FirstShown { get; } = ["sandpiper-slate", "curlew-desk", "gannet-tower"];

    public static IReadOnlyList<Machine> All { get; } =
    [
        Slate(), Desktop(), Tower(),
        .. MemoryFamily(), .. DriveFamily(), .. GraphicsFamily(), .. ChipFamily(), .. StickFamily(), .. PowerFamily(), GamingLaptop(),
        OldLaptop(),
    ];

    private static Machine Slate() => new(
        "sandpiper-slate", "Sandpiper slate", MachineKind.StandIn, "Fanless, four small cores, built-in graphics",
        new Processor("Sandpiper S4", 4, 4, 0.8, 2.4),
        [new Graphics("built in", 900, 55, 4, null)],
        [
            new MediaEngine("Sandpiper media block", 700,
            [
                new FormatCapability(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Uhd),
                new FormatCapability(Codec.Hevc, ChromaSubsampling.Quarter, 10, Raster.Uhd),
            ]) { Encodes = ForDelivery(Raster.Uhd), EncodedMegapixelsPerSecond = 140 },
        ],
        new Memory(8, 3.5, 1, 4800),
        [Everything("NVMe", 1800, 1100, 90)],
        new Cooling(Fanless: true, 3.2, 70, 24, 92, 4, 24),
        Price: 890) { Form = MachineForm.Slate };

    private static Machine Desktop() => new(
        "curlew-desk", "Curlew desk", MachineKind.StandIn, "Eight cores, capable media engine, middling graphics",
        new Processor("Curlew C8", 8, 16, 1.5, 4.2),
        [new Graphics("Curlew G2", 6000, 280, 8, 12)],
        [Capable("Curlew media engine", 1500)],
        new Memory(32, 5, 2, 5600),
        [Everything("NVMe", 3500, 2800, 70)],
        new Cooling(Fanless: false, 0.4, 220, 24, 95, 45, 140),
        Price: 1690) { Form = MachineForm.SmallDesktop };

    private static Machine Tower() => new(
        "gannet-tower", "Gannet tower", MachineKind.StandIn, "Strong graphics, old processor and media engine",
        new Processor("Gannet T4", 4, 8, 0.8, 3.4),
        [new Graphics("Gannet X9", 24000, 700, 24, 12)],
        [
            new MediaEngine("Gannet media engine, first series", 400,
            [
                new FormatCapability(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Hd),
            ])
            {
                Encodes = [new FormatCapability(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Hd)], EncodedMegapixelsPerSecond = 80,
            },
        ],
        new Memory(64, 5, 4, 3200),
        [Everything("SATA", 500, 450, 150)],
        new Cooling(Fanless: false, 0.35, 300, 24, 90, 80, 180),
        Price: 3480)
    {
        Form = MachineForm.Tower,
        Places = new Places("Brant 6", 180, "DDR4", 4, 128, FreeNvme: 0, FreeSata: 2, GraphicsMillimetres: 320, SupplyWatts: 650, GraphicsWatts: 280),
    };

    /// <summary>One all-in-one with 8, 16, 32 and 64 GB.</summary>
    private static IEnumerable<Machine> MemoryFamily()
    {
        var heron = new Machine(
            "heron-32", "Heron all-in-one, 32 GB", MachineKind.StandIn, "Six cores, built-in graphics, 32 GB",
            new Processor("Heron H6", 6, 12, 1.3, 3.9, SlowCores: 2, RelativeSlowSpeed: 0.7, VectorBits: 256),
            [new Graphics("built in", 2600, 120, 8, null)],
            [Capable("Heron media block", 1100)],
            new Memory(32, 4.5, 2, 5600, 2),
            [Everything("NVMe", 3000, 2400, 80)],
            new Cooling(Fanless: false, 0.7, 160, 24, 95, 20, 80),
            Price: 1920) { Form = MachineForm.AllInOne };
        foreach (var (gigabytes, price) in new[] { (8, 1720m), (16, 1790m), (32, 1920m), (64, 2220m) })
        {
            yield return heron with
            {
                Id = $"heron-{gigabytes}", Name = $"Heron all-in-one, {gigabytes} GB",
                Summary = $"Six cores, built-in graphics, {gigabytes} GB",
                Memory = heron.Memory with { Gigabytes = gigabytes },
                Price = price,
            };
        }
    }

    /// <summary>One tower with its footage on four kinds of drive; the system keeps its own.</summary>
    private static IEnumerable<Machine> DriveFamily()
    {
        var system = new Drive([DriveRole.Project, DriveRole.Renders, DriveRole.System], "NVMe", 3000, 2400, 0.08);
        (string Id, Drive Media, decimal Price)[] drives =
        [
            ("mechanical", new Drive([DriveRole.Media], "mechanical", 180, 170, 12), 2040),
            ("sata", new Drive([DriveRole.Media], "SATA", 530, 480, 0.15), 2110),
            ("nvme", new Drive([DriveRole.Media], "NVMe", 3500, 2900, 0.07), 2180),
            ("array", new Drive([DriveRole.Media], "striped array", 9000, 7000, 0.09), 2990),
        ];
        return drives.Select(drive => new Machine(
            $"knot-tower-{drive.Id}",
            $"Knot tower, {drive.Media.Kind}",
            MachineKind.StandIn,
            $"Twelve cores, footage on a drive of its own: {drive.Media.Kind}",
            new Processor("Knot K12", 12, 24, 1.35, 4.0, VectorBits: 256),
            [new Graphics("Knot G3", 9000, 360, 12, Bus(4, 16))],
            [Capable("Knot media engine", 1300)],
            new Memory(32, 5, 2, 3600, 2),
            [drive.Media, system],
            new Cooling(Fanless: false, 0.32, 280, 24, 92, 60, 190),
            drive.Price) { Form = MachineForm.Tower });
    }

    /// <summary>One tower with one graphics unit and with two.</summary>
    private static IEnumerable<Machine> GraphicsFamily()
    {
        var unit = new Graphics("Avocet R5", 12000, 450, 16, Bus(4, 16));
        var one = new Machine(
            "avocet-tower", "Avocet tower", MachineKind.StandIn, "Sixteen cores, one strong graphics unit",
            new Processor("Avocet A16", 16, 32, 1.5, 4.3, VectorBits: 512),
            [unit],
            [Capable("Avocet media engine", 1800)],
            new Memory(64, 6, 2, 5600, 2),
            [Everything("NVMe", 7000, 6000, 60)],
            new Cooling(Fanless: false, 0.25, 380, 24, 92, 75, 240),
            Price: 3900) { Form = MachineForm.Tower };
        return
        [
            one,
            one with
            {
                Id = "avocet-tower-twin",
                Name = "Avocet tower, two units",
                Summary = "Sixteen cores, two strong graphics units",
                Graphics = [unit, unit],
                Price = 5200,
            },
        ];
    }

    /// <summary>One thin laptop whose chip comes with built-in graphics and their media engine, and without.</summary>
    private static IEnumerable<Machine> ChipFamily()
    {
        var with = new Machine(
            "dunlin-laptop", "Dunlin laptop", MachineKind.StandIn, "Thin, eight cores, built-in graphics and media engine",
            new Processor("Dunlin D8", 8, 12, 1.25, 3.6, SlowCores: 4, RelativeSlowSpeed: 0.65, VectorBits: 256),
            [new Graphics("built in", 2200, 100, 8, null)],
            [Capable("Dunlin media block", 1000)],
            new Memory(16, 4, 2, 5200, 2),
            [Everything("NVMe", 3000, 2000, 80)],
            new Cooling(Fanless: false, 1.4, 90, 24, 96, 8, 45, MainsWatts: 45, BatteryWatts: 28),
            Price: 1890) { Form = MachineForm.Laptop };
        return
        [
            with,
            with with
            {
                Id = "dunlin-laptop-plain",
                Name = "Dunlin laptop, no graphics",
                Summary = "Thin, the same chip without built-in graphics",
                Graphics = [],
                MediaEngines = [],
                Price = 1760,
            },
        ];
    }

    /// <summary>One desktop with two sticks of memory on two channels and with four on four.</summary>
    private static IEnumerable<Machine> StickFamily()
    {
        var two = new Machine(
            "plover-desk-2", "Plover desk, 2 sticks", MachineKind.StandIn, "Eight cores, large built-in graphics, two sticks",
            new Processor("Plover P8", 8, 16, 1.4, 4.1, VectorBits: 256),
            [new Graphics("built in, large", 7000, 240, 16, null)],
            [Capable("Plover media block", 1400)],
            new Memory(32, 5, 2, 5600, 2),
            [Everything("NVMe", 3500, 2800, 70)],
            new Cooling(Fanless: false, 0.45, 200, 24, 95, 30, 120),
            Price: 1740) { Form = MachineForm.SmallDesktop };
        return
        [
            two,
            two with
            {
                Id = "plover-desk-4",
                Name = "Plover desk, 4 sticks",
                Summary = "Eight cores, large built-in graphics, four sticks",
                Memory = two.Memory with { Sticks = 4, Channels = 4 },
                Price = 1820,
            },
        ];
    }

    /// <summary>One workstation laptop on mains and on its battery.</summary>
    private static IEnumerable<Machine> PowerFamily()
    {
        var mains = new Machine(
            "whimbrel-laptop", "Whimbrel workstation laptop", MachineKind.StandIn, "Fourteen cores, discrete graphics, on mains",
            new Processor("Whimbrel W14", 14, 20, 1.45, 4.4, SlowCores: 8, RelativeSlowSpeed: 0.75, VectorBits: 256),
            [new Graphics("Whimbrel M4", 8000, 320, 8, Bus(4, 8)), new Graphics("built in", 1600, 90, 4, null)],
            [Capable("Whimbrel media engine", 1500), Capable("Whimbrel media block", 900)],
            new Memory(64, 6, 2, 5600, 2),
            [Everything("NVMe", 6500, 5000, 65)],
            new Cooling(Fanless: false, 0.75, 130, 24, 97, 18, 125, MainsWatts: 110, BatteryWatts: 48),
            Price: 3290) { Form = MachineForm.Laptop };
        return
        [
            mains,
            mains with
            {
                Id = "whimbrel-laptop-battery",
                Name = "Whimbrel, on battery",
                Summary = "The same, on its battery",
                OnBattery = true,
            },
        ];
    }

    private static Machine GamingLaptop() => new(
        "turnstone-laptop", "Turnstone gaming laptop", MachineKind.StandIn, "Eight cores, strong graphics, media engine without 4:2:2",
        new Processor("Turnstone T8", 8, 16, 1.4, 4.3, VectorBits: 256),
        [new Graphics("Turnstone V7", 13000, 380, 8, Bus(4, 8))],
        [
            new MediaEngine("Turnstone media engine", 1600,
            [
                new FormatCapability(Codec.Avc, ChromaSubsampling.Quarter, 8, Large),
                new FormatCapability(Codec.Hevc, ChromaSubsampling.Quarter, 10, Large),
                new FormatCapability(Codec.Av1, ChromaSubsampling.Quarter, 10, Large),
            ]) { Encodes = ForDelivery(Large), EncodedMegapixelsPerSecond = 1600 * EncodesPerDecoded },
        ],
        new Memory(16, 5, 2, 4800, 2),
        [Everything("NVMe", 5000, 4000, 70)],
        new Cooling(Fanless: false, 0.6, 140, 24, 97, 20, 130, MainsWatts: 140, BatteryWatts: 50),
        Price: 1980) { Form = MachineForm.Laptop };

    private static Machine OldLaptop() => new(
        "stint-laptop", "Stint laptop", MachineKind.StandIn, "Some years old: four cores, no discrete graphics, no media engine of use",
        new Processor("Stint S4", 4, 8, 0.65, 2.8, VectorBits: 256),
        [new Graphics("built in", 420, 30, 4, null)],
        [],
        new Memory(16, 4, 2, 2400, 2),
        [Everything("SATA", 500, 400, 150)],
        new Cooling(Fanless: false, 1.1, 100, 24, 95, 7, 36, MainsWatts: 36, BatteryWatts: 22),
        Price: 540) { Form = MachineForm.Laptop };

    private static MediaEngine Capable(string name, double megapixels) => new(name, megapixels,
    [
        new FormatCapability(Codec.Avc, ChromaSubsampling.Half, 10, Large),
        new FormatCapability(Codec.Hevc, ChromaSubsampling.Half, 10, Large),
    ])
    {
        Encodes = ForDelivery(Large), EncodedMegapixelsPerSecond = megapixels * EncodesPerDecoded,
    };

    /// <summary>Made up: a media engine encodes this much slower than it decodes.</summary>
    internal const double EncodesPerDecoded = 0.2;

    /// <summary>What media engines of the demo encode.</summary>
    internal static IReadOnlyList<FormatCapability> ForDelivery(Raster largest) =>
    [
        new FormatCapability(Codec.Avc, ChromaSubsampling.Quarter, 8, largest),
        new FormatCapability(Codec.Hevc, ChromaSubsampling.Quarter, 10, largest),
    ];

    private static Drive Everything(string kind, double read, double write, double microseconds) =>
        new(Drive.AllRoles, kind, read, write, microseconds / 1000);

    private static double Bus(int generation, int lanes) => Math.Round(BusRate.GigabytesPerSecond(generation, lanes), 2);
}
