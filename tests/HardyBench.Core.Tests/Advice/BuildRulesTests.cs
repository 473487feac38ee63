using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Machines;

namespace HardyBench.Core.Tests.Advice;

/// <summary>What fits and what does not. Common practice, no source.</summary>
public sealed class BuildRulesTests
{
    private static readonly Build Fitting = new(
        new ProcessorPart("p", "P", 200, "A", new Processor("P", 8, 16, 1.4, 4), 95, new Graphics("own", 900, 60, 4, null)),
        new BoardPart("b", "B", 100, "A", "DDR5", 4, 128, 1, 1, 2, BoardSize.Middle),
        new MemoryPart("m", "M", 90, "DDR5", 2, 16, 5600),
        new GraphicsPart("g", "G", 300, new Graphics("G", 9000, 300, 8, 15.75), 150, 240), 1,
        new DrivePart("d", "D", 70, DriveInterface.Nvme, "NVMe", 3000, 2000, 0.1),
        new SupplyPart("s", "S", 80, 450), new CoolerPart("k", "K", 40, 125, 120, 34),
        new CasePart("c", "C", 60, MachineForm.Tower, BoardSize.Middle, 300, 160));

    private static readonly (string Says, Func<Build, Build> Change)[] Wrong =
    [
        ("P has socket A, B has X.", build => build with { Board = build.Board with { Socket = "X" } }),
        ("M is DDR4, B needs DDR5.", build => build with { Memory = build.Memory with { MemoryKind = "DDR4" } }),
        ("M is 8 sticks, B has 4 slots.", build => build with { Memory = build.Memory with { Sticks = 8, GigabytesEach = 8 } }),
        ("M is 256 GB, B supports at most 128 GB.", build => build with { Memory = build.Memory with { GigabytesEach = 128 } }),
        ("2 graphics units need as many long slots, B has 1.",
            build => build with { Units = 2, Supply = build.Supply with { Watts = 900 } }),
        ("A number of graphics units needs a graphics unit, and the reverse.", build => build with { Graphics = null }),
        ("There is no graphics unit, and P has no built-in graphics.",
            build => build with { Graphics = null, Units = 0, Processor = build.Processor with { BuiltIn = null } }),
        ("B has no place for D.", build => build with { Board = build.Board with { NvmeSlots = 0 } }),
        ("B has no place for D.",
            build => build with
            {
                Drive = build.Drive with { Interface = DriveInterface.Sata }, Board = build.Board with { SataPorts = 0 },
            }),
        ("K cools 94 W, P draws 95 W.", build => build with { Cooler = build.Cooler with { Watts = 94 } }),
        ("S gives 365 W, with a reserve of a fifth 366 W are needed.", build => build with { Supply = build.Supply with { Watts = 365 } }),
        ("B is too large for C.", build => build with { Board = build.Board with { Size = BoardSize.Large } }),
        ("G is 301 mm long, C has room for 300 mm.", build => build with { Graphics = build.Graphics! with { Millimetres = 301 } }),
        ("K is 161 mm high, C has room for 160 mm.", build => build with { Cooler = build.Cooler with { Millimetres = 161 } }),
    ];

    public static TheoryData<int> Places => new(Enumerable.Range(0, Wrong.Length));

    [Theory]
    [MemberData(nameof(Places))]
    public void What_does_not_fit_is_said_and_is_not_offered(int place)
    {
        var build = Wrong[place].Change(Fitting);

        Assert.Equal([Wrong[place].Says], BuildRules.Problems(build));
        Assert.False(BuildRules.Fits(build));
    }

    [Fact]
    public void A_build_that_fits_is_the_machine_of_its_parts()
    {
        Assert.Empty(BuildRules.Problems(Fitting));
        var machine = (Fitting with { Units = 2, Board = Fitting.Board with { GraphicsSlots = 2 } }).ToMachine();

        Assert.Equal(1240, machine.Price);
        Assert.Equal(["G", "G", "own"], machine.Graphics.Select(unit => unit.Name));
        Assert.Equal((32, 2), (machine.Memory.Gigabytes, machine.Memory.Channels));
        Assert.Equal((MachineForm.Tower, 34), (machine.Form, machine.NoiseDecibels));
        Assert.Empty(MachineLimits.Problems(machine with { Id = "x" }));
    }

    [Fact]
    public void Whoever_asks_for_parts_is_told_why_they_make_no_machine()
    {
        var catalogue = new Catalogue([.. Fitting.Parts, new GraphicsPart("h", "H", 9, Fitting.Graphics!.Unit, 1, 20)]);

        var (problems, price) = catalogue.Check(["p", "b", "m", "g", "d", "s", "k", "c"]);
        Assert.Empty(problems);
        Assert.Equal(940, price);
        Assert.Equal(["There is no part 'x'.", "A drive is missing."], catalogue.Check(["p", "b", "m", "g", "x", "s", "k", "c"]).Problems);
        Assert.Contains("have to be equal", Assert.Single(catalogue.Check(["p", "b", "m", "g", "h", "d", "s", "k", "c"]).Problems));
        Assert.Equal(
            "There are 2 parts of the kind case; there has to be one.",
            Assert.Single(catalogue.Check(["p", "b", "m", "g", "d", "s", "k", "c", "c"]).Problems));
        Assert.Equal(7, catalogue.Check([]).Problems.Count);
    }

    [Theory]
    [InlineData(120)]
    [InlineData(16)]
    public void Parts_that_make_too_many_builds_are_refused_in_words(int ofEach)
    {
        var parts = Enumerable.Range(0, ofEach).SelectMany(n => Fitting.Parts.Select(part => part with { Id = $"{part.Id}{n}" })).ToList();

        var refused = Assert.Throws<PartRefusedException>(() => new Catalogue(parts).Builds());
        Assert.Contains("too many to search", refused.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void No_part_no_build_and_no_error()
    {
        Assert.Empty(new Catalogue([]).Builds());
        Assert.Empty(new Catalogue([Fitting.Board, Fitting.Case]).Builds());
    }
}
