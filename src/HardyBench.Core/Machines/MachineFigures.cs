namespace HardyBench.Core.Machines;

/// <summary>Every number of a machine's description that its user states, in the order of the form and of a table of machines. What was
/// measured (<see cref="MachineCosts"/>) is not stated by anybody.</summary>
public static class MachineFigures
{
    /// <summary>Parts of which a machine has one, which may be missing as a whole, or several.</summary>
    private delegate IEnumerable<(string? Of, T Part)> PartsOf<T>(Machine machine);

    public static IReadOnlyList<MachineFigure> All { get; } =
    [
        .. Processor(), .. Memory(), .. Graphics(), .. MediaEngines(), .. Drives(), .. Cooling(), .. Places(),
        Of(Whole, "noiseDecibels", "noise_db", "noise at full load", "noise", "dB", 0, 120, machine => machine.NoiseDecibels) with
        {
            IsOptional = true,
        },
        Of(Whole, "price", "price_eur", "price", "price", "EUR", 0, 1e7, machine => (double?)machine.Price) with { IsOptional = true },
    ];

    private static MachineFigure[] Processor()
    {
        static IEnumerable<(string?, Processor)> Part(Machine machine) => [(null, machine.Processor)];
        return
        [
            Of(Part, "processor.cores", "cores", "cores", "number of cores", null, 1, 256, part => part.Cores) with { IsWhole = true },
            Of(Part, "processor.threads", "threads", "threads", "number of threads", null, 1, 512, part => part.Threads) with { IsWhole = true },
            Of(Part, "processor.relativeCoreSpeed", "core_speed", "core speed", "core speed", null, 0.05, 20, part => part.RelativeCoreSpeed)
                with { IsCompared = true },
            Of(Part, "processor.slowCores", "slow_cores", "slow cores", "number of slow cores", null, 0, 255, part => part.SlowCores)
                with { IsWhole = true },
            Of(Part, SlowSpeed, "slow_core_speed", "slow core speed", "speed of slow cores", null, 0.05, 20, part => part.RelativeSlowSpeed)
                with { IsCompared = true },
            Of(Part, "processor.clockGigahertz", "clock_ghz", "clock", "clock", "GHz", 0.1, 12, part => part.ClockGigahertz)
                with { IsOptional = true },
            Of(Part, "processor.vectorBits", "vector_bits", "vectors", "width of vectors", "bit", 64, 2048, part => part.VectorBits)
                with { IsWhole = true, IsOptional = true },
        ];
    }

    private static MachineFigure[] Memory()
    {
        static IEnumerable<(string?, Memory)> Part(Machine machine) => [(null, machine.Memory)];
        return
        [
            Of(Part, "memory.gigabytes", "memory_gb", "fitted", "memory", "GB", 0.5, 8192, part => part.Gigabytes) with { IsCompared = true },
            Of(Part, "memory.inUseGigabytes", "memory_in_use_gb", "in use at start", "memory in use", "GB", 0, 8192, part => part.InUseGigabytes),
            Of(Part, "memory.sticks", "sticks", "sticks", "number of memory sticks", null, 1, 64, part => part.Sticks)
                with { IsWhole = true, IsOptional = true, IsCompared = true },
            Of(Part, "memory.channels", "channels", "channels", "number of memory channels", null, 1, 24, part => part.Channels)
                with { IsWhole = true, IsOptional = true, IsCompared = true },
            Of(Part, "memory.megatransfersPerSecond", "memory_mt_s", "speed", "memory speed", "MT/s", 200, 40_000,
                part => part.MegatransfersPerSecond) with { IsWhole = true, IsOptional = true, IsCompared = true },
        ];
    }

    private static MachineFigure[] Graphics()
    {
        static IEnumerable<(string?, Graphics)> Part(Machine machine) => machine.Graphics.Select(unit => ((string?)unit.Name, unit));
        return
        [
            Of(Part, "graphics.peakGigaflops", "graphics_gflops", "peak", "peak", "Gflop/s", 10, 2e6, part => part.PeakGigaflops),
            Of(Part, "graphics.bandwidthGigabytesPerSecond", "graphics_gb_s", "memory rate", "memory rate", "GB/s", 1, 20_000,
                part => part.BandwidthGigabytesPerSecond),
            Of(Part, "graphics.memoryGigabytes", "graphics_gb", "memory", "memory", "GB", 0.1, 1024, part => part.MemoryGigabytes),
            Of(Part, "graphics.busGigabytesPerSecond", "graphics_bus_gb_s", "bus", "bus", "GB/s", 0.1, 1000, part => part.BusGigabytesPerSecond)
                with { IsOptional = true },
        ];
    }

    private static MachineFigure[] MediaEngines()
    {
        static IEnumerable<(string?, MediaEngine)> Part(Machine machine) =>
            machine.MediaEngines.Select(engine => ((string?)engine.Name, engine));
        return
        [
            Of(Part, "mediaEngines.megapixelsPerSecond", "engine_mpixel_s", "decodes", "decoding rate", "Mpixel/s", 1, 1e6,
                part => part.MegapixelsPerSecond),
            Of(Part, "mediaEngines.encodedMegapixelsPerSecond", "engine_encode_mpixel_s", "encodes", "encoding rate", "Mpixel/s", 1, 1e6,
                part => part.EncodedMegapixelsPerSecond) with { IsOptional = true },
        ];
    }

    private static MachineFigure[] Drives()
    {
        static IEnumerable<(string?, Drive)> Part(Machine machine) => machine.Drives.Select(drive => ((string?)drive.Kind, drive));
        return
        [
            Of(Part, "drives.readMegabytesPerSecond", "drive_read_mb_s", "reads", "reading rate", "MB/s", 1, 200_000,
                part => part.ReadMegabytesPerSecond),
            Of(Part, "drives.writeMegabytesPerSecond", "drive_write_mb_s", "writes", "writing rate", "MB/s", 1, 200_000,
                part => part.WriteMegabytesPerSecond),
            Of(Part, "drives.latencyMilliseconds", "drive_latency_ms", "latency", "latency", "ms", 0, 10_000,
                part => part.LatencyMilliseconds),
        ];
    }

    private static MachineFigure[] Cooling()
    {
        static IEnumerable<(string?, Cooling)> Part(Machine machine) => machine.Cooling is { } cooling ? [(null, cooling)] : [];
        return
        [
            Of(Part, "cooling.resistanceKelvinPerWatt", "resistance_k_w", "resistance", "thermal resistance", "K/W", 0.01, 100,
                part => part.ResistanceKelvinPerWatt),
            Of(Part, "cooling.capacityJoulesPerKelvin", "capacity_j_k", "heat capacity", "heat capacity", "J/K", 1, 100_000,
                part => part.CapacityJoulesPerKelvin),
            Of(Part, "cooling.ambientCelsius", "ambient_c", "room", "room temperature", "°C", -40, 60, part => part.AmbientCelsius),
            Of(Part, "cooling.limitCelsius", "limit_c", "limit", "temperature limit", "°C", 40, 130, part => part.LimitCelsius),
            Of(Part, "cooling.idleWatts", "idle_w", "idle", "idle power", "W", 0.1, 2000, part => part.IdleWatts),
            Of(Part, "cooling.fullWatts", "full_w", "all cores busy", "full power", "W", 0.1, 5000, part => part.FullWatts),
            Of(Part, "cooling.mainsWatts", "mains_w", "limit on mains", "power limit on mains", "W", 0.1, 5000, part => part.MainsWatts)
                with { IsOptional = true },
            Of(Part, "cooling.batteryWatts", "battery_w", "limit on battery", "power limit on battery", "W", 0.1, 5000,
                part => part.BatteryWatts) with { IsOptional = true },
        ];
    }

    private static IEnumerable<MachineFigure> Places()
    {
        static IEnumerable<(string?, Places)> Part(Machine machine) => machine.Places is { } places ? [(null, places)] : [];
        MachineFigure[] figures =
        [
            Of(Part, "places.coolerWatts", "cooler_w", "cooler", "power of the cooler", "W", 1, 2000, part => part.CoolerWatts),
            Of(Part, "places.memorySlots", "memory_slots", "slots for it", "number of memory slots", null, 1, 64, part => part.MemorySlots)
                with { IsWhole = true },
            Of(Part, "places.mostGigabytes", "most_memory_gb", "maximum", "maximum of memory", "GB", 1, 8192, part => part.MostGigabytes),
            Of(Part, "places.freeNvme", "free_nvme", "free for NVMe", "number of free NVMe slots", null, 0, 16, part => part.FreeNvme)
                with { IsWhole = true },
            Of(Part, "places.freeSata", "free_sata", "free for SATA", "number of free SATA ports", null, 0, 32, part => part.FreeSata)
                with { IsWhole = true },
            Of(Part, "places.graphicsMillimetres", "graphics_room_mm", "graphics", "room for graphics", "mm", 0, 1000,
                part => part.GraphicsMillimetres),
            Of(Part, "places.supplyWatts", "supply_w", "power supply", "power supply", "W", 50, 10_000, part => part.SupplyWatts),
            Of(Part, "places.graphicsWatts", "graphics_w", "graphics draw", "draw of the graphics units", "W", 0, 5000,
                part => part.GraphicsWatts),
        ];
        return figures.Select(figure => figure with { IsOptional = true });
    }

    /// <summary>The path of the one figure that a rule names.</summary>
    public const string SlowSpeed = "processor.relativeSlowSpeed";

    private static IEnumerable<(string?, Machine)> Whole(Machine machine) => [(null, machine)];

    private static MachineFigure Of<T>(
        PartsOf<T> parts, string path, string column, string field, string name, string? unit, double min, double max,
        Func<T, double?> value) =>
        new(path, column, field, name, unit, min, max, machine => parts(machine).Select(one => (one.Of, value(one.Part))));
}
