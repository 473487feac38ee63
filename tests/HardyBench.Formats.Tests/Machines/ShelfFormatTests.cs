using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Formats.Machines;

namespace HardyBench.Formats.Tests.Machines;

public sealed class ShelfFormatTests
{
    private static readonly Machine Full = new(
        "full", "Everything, “stated”", MachineKind.StandIn, "one, of each; two of some",
        new Processor("P", 8, 12, 1.3, 3.9, 2, 0.7, 256),
        [new Graphics("one", 5000, 250, 8, 15.75), new Graphics("built in", 900, 55.5, 4, null)],
        [
            new MediaEngine(
                "e",
                1500,
                [
                    new FormatCapability(Codec.Hevc, ChromaSubsampling.Half, 10, Raster.Uhd),
                    new FormatCapability(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Hd),
                ]
            ),
            new MediaEngine("f", 400.5, []),
        ],
        new Memory(32, 4.5, 2, 5600, 2),
        [
            new Drive([DriveRole.Media], "mechanical", 180, 170.5, 12),
            new Drive([DriveRole.Project, DriveRole.System], "NVMe", 3000, 2000, 0.08),
        ],
        new Cooling(true, 0.75, 130, 24, 97, 18, 125, 110, 48),
        1490.5m)
    {
        Form = MachineForm.Laptop,
        OnBattery = true,
        NoiseDecibels = 38.5,
        Places = new Places("A", 180, "DDR5", 4, 128, 1, 2, 320.5, 650, 280),
        OperatingSystem = "a system",
        DriverDate = new DateOnly(2026, 2, 1),
        PricedOn = new DateOnly(2026, 10, 31),
    };

    private static readonly Machine Bare = new(
        "bare", "Bare", MachineKind.StandIn, "", new Processor("", 2, 2, null, null), [], [], new Memory(8, 0, null, null), [], null, null);

    [Fact]
    public void A_shelf_goes_out_and_comes_in_again_unchanged_as_json() => Same(MachineJson.Read(MachineJson.Write([Full, Bare])));

    [Fact]
    public void A_shelf_goes_out_and_comes_in_again_unchanged_as_a_table() => Same(MachineCsv.Read(MachineCsv.Write([Full, Bare])));

    [Fact]
    public void One_machine_alone_is_a_shelf_too()
    {
        var read = MachineJson.Read(
            """{"name":"Short","processor":{"name":"","cores":4,"threads":8,"relativeCoreSpeed":null,"clockGigahertz":null},"graphics":[],"mediaEngines":[],"memory":{"gigabytes":8,"inUseGigabytes":2,"sticks":null,"megatransfersPerSecond":null},"drives":[],"cooling":null,"price":null}"""
        );

        Assert.Empty(read.Problems);
        Assert.Equal((string.Empty, "Short", 4), (read.Machines[0].Id, read.Machines[0].Name, read.Machines[0].Processor.Cores));
    }

    [Fact]
    public void Every_bad_line_is_named_with_its_reason_and_the_rest_is_kept()
    {
        var read = MachineCsv.Read(
            "name,cores,memory_gb,price_eur,form\nGood,8,32,1000,tower\nNegative,8,-32,,\nWordy,eight,32,,\n,4,8,,\nFormless,4,8,12.x,pyramid\n\"Also, good\",4,8,,\n"
        );

        Assert.Equal(["Good", "Also, good"], read.Machines.Select(machine => machine.Name));
        Assert.Equal(["line 3", "line 4", "line 5", "line 6"], read.Problems.Select(problem => problem.Where));
        Assert.Contains("memory is -32 GB", read.Problems[0].Why, StringComparison.Ordinal);
        Assert.Equal("'eight' in cores is not a whole number.", read.Problems[1].Why);
        Assert.Contains("has a name", read.Problems[2].Why, StringComparison.Ordinal);
        Assert.Equal(
            "'pyramid' in form is not one of slate, laptop, smallDesktop, allInOne, tower. '12.x' in price_eur is not a number.",
            Sorted(read.Problems[3].Why)
        );
        static string Sorted(string words) =>
            words.StartsWith("'pyramid'", StringComparison.Ordinal)
                ? words
                : string.Join(' ', words.Split(". ").Reverse().Select(part => part.TrimEnd('.') + "."));
    }

    [Fact]
    public void An_unknown_column_is_ignored_and_named()
    {
        var read = MachineCsv.Read("name,cores,memory_gb,colour\nGood,8,32,grey\n");

        Assert.Single(read.Machines);
        Assert.Equal("There is no column colour; it was ignored.", Assert.Single(read.Problems).Why);
    }

    [Theory]
    [InlineData("", "lacks the columns name, cores, memory_gb")]
    [InlineData("name;cores;memory_gb\nA;2;8\n", "lacks the columns")]
    [InlineData("\0\0\0\0", "lacks the columns")]
    public void A_table_without_its_head_is_refused(string text, string words) =>
        Assert.Contains(words, Assert.Throws<ShelfException>(() => MachineCsv.Read(text)).Message, StringComparison.Ordinal);

    [Theory]
    [InlineData("", "not JSON")]
    [InlineData("{\"format\":\"something-else/1\",\"machines\":[]}", "expected: 'hardy-bench-machines/1'")]
    [InlineData("3", "no list of machines")]
    [InlineData("{\"machines\":3}", "no list of machines")]
    public void A_text_without_machines_is_refused(string text, string words) =>
        Assert.Contains(words, Assert.Throws<ShelfException>(() => MachineJson.Read(text)).Message, StringComparison.Ordinal);

    [Fact]
    public void Every_bad_machine_of_a_list_is_named_and_the_rest_is_kept()
    {
        var good = MachineJson.Write([Bare]);
        var element = good[(good.IndexOf('[', StringComparison.Ordinal) + 1)..good.LastIndexOf(']')];
        var read = MachineJson.Read(
            $"[{element}, 7, null, {{\"name\":\"Hollow\"}}, {element.Replace("\"cores\": 2", "\"cores\": \"two\"", StringComparison.Ordinal)}, {element}]"
        );

        Assert.Equal(2, read.Machines.Count);
        Assert.Equal(["machine 2", "machine 3", "machine 4", "machine 5"], read.Problems.Select(problem => problem.Where));
        Assert.Equal("Hollow", read.Problems[2].Name);
        Assert.Contains("processor.cores", read.Problems[3].Why, StringComparison.Ordinal);
    }

    [Fact]
    public void Ten_thousand_lines_with_errors_are_all_answered()
    {
        var lines = string.Join('\n', Enumerable.Range(0, 10_000).Select(n => n % 2 == 0 ? $"M{n},4,8" : $"M{n},-4,8"));
        var read = MachineCsv.Read($"name,cores,memory_gb\n{lines}\n");

        Assert.Equal((5000, 5000), (read.Machines.Count, read.Problems.Count));
        Assert.Equal("line 3", read.Problems[0].Where);
    }

    [Fact]
    public void A_row_of_an_engines_table_that_cannot_be_read_is_named()
    {
        var read = MachineCsv.Read("name,cores,memory_gb,engine,engine_mpixel_s,engine_decodes\nGood,8,32,e,500,hevc 4:2:9 10 3840x2160\n");

        Assert.Contains(
            "'hevc 4:2:9 10 3840x2160' in engine_decodes is not a format",
            Assert.Single(read.Problems).Why,
            StringComparison.Ordinal
        );
    }

    private static void Same(ShelfReading read)
    {
        Assert.Empty(read.Problems);
        Assert.Equal(MachineJson.Write([Full, Bare]), MachineJson.Write(read.Machines));
    }
}
