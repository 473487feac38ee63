using System.Text.Json.Nodes;
using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Formats.Advice;
using HardyBench.Formats.Machines;

namespace HardyBench.Formats.Tests.Advice;

public sealed class CatalogueJsonTests
{
    private static readonly Part[] All =
    [
        new ProcessorPart("p", "P", 200, "A", new Processor("P", 8, 16, 1.4, 4), 95, new Graphics("own", 900, 60, 4, null)),
        new BoardPart("b", "B", 100, "A", "DDR5", 4, 128, 1, 1, 2, BoardSize.Middle),
        new MemoryPart("m", "M", 90.5m, "DDR5", 2, 16, 5600) { PricedOn = new DateOnly(2026, 11, 2) },
        new GraphicsPart("g", "G", 300, new Graphics("G", 9000, 300, 8, 15.75), 150, 240),
        new DrivePart("d", "D", 70, DriveInterface.Nvme, "NVMe", 3000, 2000, 0.1), new SupplyPart("s", "S", 80, 450),
        new CoolerPart("k", "K", 40, 125, 120, 34), new CasePart("c", "C", 60, MachineForm.Tower, BoardSize.Middle, 300, 160),
    ];

    [Fact]
    public void Parts_of_every_kind_come_back_as_they_went_out()
    {
        var (parts, problems) = CatalogueJson.Read(CatalogueJson.Write(All));

        Assert.Empty(problems);
        Assert.Equal(All, parts);
    }

    [Fact]
    public void A_bad_part_is_named_and_costs_no_other()
    {
        var document = JsonNode.Parse(CatalogueJson.Write(All))!;
        var parts = document["parts"]!.AsArray();
        parts[0]!["watts"] = -5;
        parts[1]!["kind"] = "sail";
        parts[2]!.AsObject().Remove("kind");
        parts[3]!.AsObject().Remove("unit");
        parts[4]!["price"] = -1;
        parts.Add("no part at all");
        parts.Add(null);

        var (kept, problems) = CatalogueJson.Read(document.ToJsonString());

        Assert.Equal(["s", "k", "c"], kept.Select(part => part.Id));
        Assert.Equal(
            ["part 1", "part 2", "part 3", "part 4", "part 5", "part 9", "part 10"], problems.Select(problem => problem.Where));
        Assert.Contains("watts", problems[0].Why, StringComparison.Ordinal);
        Assert.All(problems, problem => Assert.NotEmpty(problem.Why));
    }

    [Fact]
    public void Ten_thousand_bad_rows_are_ten_thousand_sentences()
    {
        var text = "[" + string.Join(',', Enumerable.Repeat("""{"kind":"supply","name":"S","price":-1,"watts":0}""", 10_000)) + "]";
        var (kept, problems) = CatalogueJson.Read(text);

        Assert.Empty(kept);
        Assert.Equal(10_000, problems.Count);
    }

    [Theory]
    [InlineData("")]
    [InlineData("no json")]
    [InlineData("7")]
    [InlineData("""{"format":"something-else/1","parts":[]}""")]
    public void What_holds_no_parts_is_an_error_in_words(string text) => Assert.Throws<ShelfException>(() => CatalogueJson.Read(text));

    [Fact]
    public void A_brief_comes_back_as_it_went_out_and_only_name_and_work_are_needed()
    {
        var brief = new Brief("b", "B", ["one", "two"])
        {
            Scale = PreviewScale.Half, Growth = 1.5, Others = new OtherPrograms(1, 8), Forms = [MachineForm.Laptop], MostDecibels = 33,
            Budget = 1999.5m, Owned = "this", Builds = false, MayUse = [RemedyKind.HalfProxies],
        };
        var read = Assert.Single(BriefJson.Read(BriefJson.Write([brief])).Briefs);

        Assert.Equal(BriefDigest.Of(brief), BriefDigest.Of(read));
        Assert.Equal(brief.Timelines, read.Timelines);
        var (briefs, problems) = BriefJson.Read("""[{"name":"Short","timelines":["t"]},{"name":"No work","timelines":[]},{"name":"None"}]""");
        Assert.Equal("Short", Assert.Single(briefs).Name);
        Assert.Equal(["brief 2", "brief 3"], problems.Select(problem => problem.Where));
    }
}
