using HardyBench.Core.Machines;

namespace HardyBench.Core.Tests.Machines;

public sealed class MachineLimitsTests
{
    private static readonly Cooling Fans = new(false, 0.4, 200, 24, 95, 30, 120);

    private static readonly Graphics Unit = new("unit", 5000, 250, 8, 15.75);

    [Fact]
    public void A_machine_as_people_describe_it_can_be_worked_with() =>
        Assert.Empty(
            MachineLimits.Problems(Samples.Machine(graphics: Unit, cooling: Fans with { BatteryWatts = 40 }) with { OnBattery = true })
        );

    public static TheoryData<string, Func<Machine, Machine>> Wrong => new()
    {
        { "has a name", machine => machine with { Name = "  " } },
        { "has a name", machine => machine with { Name = new string('x', 81) } },
        { "A part is missing", machine => machine with { Processor = null! } },
        { "A part is missing", machine => machine with { Graphics = [null!] } },
        { "A part is missing", machine => machine with { MediaEngines = [new MediaEngine("e", 500, null!)] } },
        { "cores is 0", machine => machine with { Processor = machine.Processor with { Cores = 0, Threads = 0 } } },
        { "2 threads are fewer than 4 cores", machine => machine with { Processor = machine.Processor with { Threads = 2 } } },
        { "core speed is NaN", machine => machine with { Processor = machine.Processor with { RelativeCoreSpeed = double.NaN } } },
        { "leave no fast one", machine => machine with { Processor = machine.Processor with { SlowCores = 4, RelativeSlowSpeed = 0.5 } } },
        { "their speed is not stated", machine => machine with { Processor = machine.Processor with { SlowCores = 2 } } },
        { "cannot be faster", machine => machine with { Processor = machine.Processor with { SlowCores = 2, RelativeSlowSpeed = 2 } } },
        { "a power of two, not 200", machine => machine with { Processor = machine.Processor with { VectorBits = 200 } } },
        { "memory is -8 GB", machine => machine with { Memory = machine.Memory with { Gigabytes = -8 } } },
        { "leave nothing of 32 GB", machine => machine with { Memory = machine.Memory with { InUseGigabytes = 32 } } },
        { "shares main memory", machine => machine with { Graphics = [Unit with { BusGigabytesPerSecond = null, MemoryGigabytes = 64 }] } },
        { "bus of unit is 0 GB/s", machine => machine with { Graphics = [Unit with { BusGigabytesPerSecond = 0 }] } },
        { "9 graphics units", machine => machine with { Graphics = [.. Enumerable.Repeat(Unit, 9)] } },
        { "decoding rate of e is 0 Mpixel/s", machine => machine with { MediaEngines = [new MediaEngine("e", 0, [])] } },
        {
            "reading rate of NVMe is Infinity",
            machine => machine with { Drives = [machine.Drives[0] with { ReadMegabytesPerSecond = double.PositiveInfinity }] }
        },
        {
            "Two drives have the role media",
            machine => machine with { Drives = [machine.Drives[0], machine.Drives[0] with { Roles = [DriveRole.Media] }] }
        },
        { "are not more than 120 W idle", machine => machine with { Cooling = Fans with { IdleWatts = 120 } } },
        {
            "would reach its temperature limit while idle",
            machine => machine with { Cooling = Fans with { ResistanceKelvinPerWatt = 3 } }
        },
        { "A power limit has to be above", machine => machine with { Cooling = Fans with { MainsWatts = 20 } } },
        { "no power limit on battery is stated", machine => machine with { Cooling = Fans, OnBattery = true } },
        { "no power is stated", machine => machine with { OnBattery = true } },
        { "price is -1", machine => machine with { Price = -1 } },
        { "The form is unknown", machine => machine with { Form = (MachineForm)99 } },
        { "The name has at most", machine => machine with { Name = "two\nlines" } },
        {
            "an unknown codec or chroma",
            machine =>
                machine with
                {
                    MediaEngines =
                    [
                        new MediaEngine(
                            "e",
                            500,
                            [
                                new FormatCapability(
                                    HardyBench.Core.Footage.Codec.Avc,
                                    (HardyBench.Core.Footage.ChromaSubsampling)99,
                                    8,
                                    HardyBench.Core.Footage.Raster.Hd
                                ),
                            ]
                        ),
                    ],
                }
        },
        { "an unknown role", machine => machine with { Drives = [machine.Drives[0] with { Roles = [(DriveRole)9] }] } },
        { "in one line", machine => machine with { Summary = "two\nlines" } },
    };

    [Theory]
    [MemberData(nameof(Wrong))]
    public void What_is_missing_negative_absurd_or_contradicts_itself_is_named(string words, Func<Machine, Machine> spoil)
    {
        var refusal = Assert.Throws<MachineRefusedException>(() => MachineLimits.Checked(spoil(Samples.Machine())));

        Assert.Contains(words, refusal.Message, StringComparison.Ordinal);
    }

    /// <summary>JEDEC naming arithmetic: 64 bits a channel, so DDR4-3200 25.6, DDR5-5200 41.6, DDR5-5600 44.8 GB/s (value from
    /// memory).</summary>
    [Theory]
    [InlineData(3200, 1, 25.6)]
    [InlineData(5200, 1, 41.6)]
    [InlineData(5600, 1, 44.8)]
    [InlineData(5600, 2, 89.6)]
    public void Memory_carries_eight_bytes_a_transfer_and_channel(int megatransfers, int channels, double expected) =>
        Assert.Equal(expected, new Memory(16, 1, channels, megatransfers, channels).BandwidthGigabytesPerSecond!.Value, 6);

    /// <summary>PCI-SIG: 8 GT/s with 128b/130b is 0.985 GB/s a lane and 15.75 GB/s on sixteen; the next generation doubles it (value from
    /// memory).</summary>
    [Theory]
    [InlineData(3, 1, 0.985)]
    [InlineData(3, 16, 15.75)]
    [InlineData(4, 16, 31.5)]
    public void A_bus_carries_its_payload_bits(int generation, int lanes, double expected) =>
        Assert.Equal(expected, BusRate.GigabytesPerSecond(generation, lanes), 0.02);

    [Fact]
    public void Slow_cores_count_by_their_speed()
    {
        Assert.Equal(8, new Processor("p", 8, 8, 1.3, null).InFastCores);
        Assert.Equal(4 + 4 * 0.5, new Processor("p", 8, 8, 1.4, null, 4, 0.7).InFastCores, 9);
    }

    [Fact]
    public void A_built_in_unit_has_no_more_than_main_memory_carries()
    {
        var builtIn = Unit with { BusGigabytesPerSecond = null };
        Assert.Equal(89.6, builtIn.ReachedBandwidth(new Memory(32, 4, 2, 5600, 2)), 6);
        Assert.Equal(250, builtIn.ReachedBandwidth(new Memory(32, 4, 2, null)));
        Assert.Equal(250, Unit.ReachedBandwidth(new Memory(32, 4, 2, 5600, 2)));
    }
}
