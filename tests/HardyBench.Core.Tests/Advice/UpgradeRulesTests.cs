using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Machines;

namespace HardyBench.Core.Tests.Advice;

/// <summary>What keeps a part out of a machine that is there.</summary>
public sealed class UpgradeRulesTests
{
    /// <summary>Idle 40 W, 140 W with all cores busy.</summary>
    private static readonly Machine There = Samples.Machine("m", graphics: new Graphics("g", 3000, 200, 6, 16)) with
    {
        Form = MachineForm.Tower, Cooling = new Cooling(false, 0.4, 200, 24, 95, 40, 140),
        Places = new Places("A", 125, "DDR5", 2, 64, 1, 0, 250, 450, 120),
    };

    private static readonly ProcessorPart Processor = new("p", "P", 300, "A", new Processor("P", 16, 32, 2, 4), 125);
    private static readonly MemoryPart Memory = new("m", "M", 90, "DDR5", 2, 32, 5600);
    private static readonly GraphicsPart Graphics = new("g", "G", 400, new Graphics("g", 8000, 300, 8, 16), 150, 250);

    /// <summary>Processor 125 + graphics 120 + the rest 60 W, a fifth more: 366 W. Processor 100 + graphics 150 + 60: 372 W. Both new:
    /// 125 + 150 + 60: 402 W.</summary>
    [Fact]
    public void What_goes_in_just_so_goes_in()
    {
        Assert.Empty(Upgrades.Problems(There, [Processor]));
        Assert.Empty(Upgrades.Problems(There, [Memory]));
        Assert.Empty(Upgrades.Problems(There, [Graphics]));
        Assert.Empty(Upgrades.Problems(There, [Drive(DriveInterface.Nvme)]));
        Assert.False(Upgrades.IsUnsure(There, [Processor, Graphics]));
        Assert.Empty(Upgrades.Problems(With(places => places with { SupplyWatts = 366 }), [Processor]));
        Assert.Empty(Upgrades.Problems(With(places => places with { SupplyWatts = 372 }), [Graphics]));
        Assert.Empty(Upgrades.Problems(With(places => places with { SupplyWatts = 402 }), [Processor, Graphics]));
        Assert.Single(Upgrades.Problems(With(places => places with { SupplyWatts = 401 }), [Processor, Graphics]));
    }

    public static TheoryData<Part, string> Refused => new()
    {
        { Processor with { Socket = "B" }, "P has socket B, m has A." },
        { Processor with { Watts = 126 }, "The cooler of m cools 125 W, P draws 126 W." },
        { Memory with { MemoryKind = "DDR4" }, "M is DDR4, m needs DDR5." },
        { Memory with { Sticks = 4, GigabytesEach = 16 }, "M is 4 sticks, m has 2 slots." },
        { Memory with { GigabytesEach = 48 }, "M is 96 GB, m supports at most 64 GB." },
        { Drive(DriveInterface.Sata), "m has no free port for D." },
        { Graphics with { Millimetres = 251 }, "G is 251 mm long, m has room for 250 mm." },
        { Graphics with { Watts = 216 }, "The supply of m gives 450 W, with a reserve of a fifth 451 W are needed for G." },
    };

    [Theory]
    [MemberData(nameof(Refused))]
    public void What_does_not_go_in_is_told_why(Part part, string why) =>
        Assert.Equal(why, Assert.Single(Upgrades.Problems(There, [part])));

    [Fact]
    public void What_nobody_has_stated_keeps_nothing_out_and_is_said()
    {
        var silent = There with { Places = null };
        Part[] any = [Processor, Memory with { Sticks = 8 }, Graphics with { Millimetres = 900 }, Drive(DriveInterface.Sata)];
        foreach (var part in any)
        {
            Assert.Empty(Upgrades.Problems(silent, [part]));
            Assert.True(Upgrades.IsUnsure(silent, [part]));
        }

        Assert.True(Upgrades.IsUnsure(With(places => places with { GraphicsWatts = null }), [Processor]));
        Assert.False(Upgrades.IsUnsure(With(places => places with { GraphicsWatts = null }) with { Graphics = [] }, [Processor]));
    }

    /// <summary>Processor 190 + graphics 150 + the rest 60 W, a fifth more: 480 W. With an old card of 120 W: 444 W.</summary>
    [Fact]
    public void Parts_count_together_and_a_larger_supply_or_cooler_makes_room()
    {
        var (large, supply, cooler) = (Processor with { Watts = 190 }, new SupplyPart("s", "S", 80, 600), new CoolerPart("k", "K", 60, 250, 150, 30));

        Assert.Single(Upgrades.Problems(There, [large]));
        Assert.Empty(Upgrades.Problems(There, [large, cooler]));
        Assert.Single(Upgrades.Problems(With(places => places with { CoolerWatts = 200 }), [Graphics, large]));
        Assert.Empty(Upgrades.Problems(There, [Graphics with { Watts = 250 }, supply]));
        Assert.True(Upgrades.MakesRoom(There, supply) && Upgrades.MakesRoom(There, cooler) && !Upgrades.IsBetter(There, supply));
        Assert.False(Upgrades.MakesRoom(There, supply with { Watts = 450 }));
        Assert.False(Upgrades.MakesRoom(There with { Form = MachineForm.Laptop }, supply));

        var with = Upgrades.With(There, [cooler, large]);
        Assert.Equal((16, 230.0), (with.Processor.Cores, with.Cooling!.FullWatts));
        Assert.Equal((95 - 24) / (250.0 + 40), with.Cooling.ResistanceKelvinPerWatt, 9);
    }

    [Fact]
    public void Added_memory_runs_at_its_own_speed() =>
        Assert.Equal(5600, Upgrades.With(There, [Memory]).Memory.MegatransfersPerSecond);

    private static DrivePart Drive(DriveInterface its) => new("d", "D", 100, its, "drive", 9000, 2500, 0.1);

    private static Machine With(Func<Places, Places> change) => There with { Places = change(There.Places!) };
}
