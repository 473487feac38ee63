using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Formats.Advice;
using HardyBench.Formats.Machines;

namespace HardyBench.Formats.Tests.Advice;

public sealed class CatalogueCsvTests
{
    private static readonly MediaEngine Engine = new(
        "E", 900, [new FormatCapability(Codec.Hevc, ChromaSubsampling.Half, 10, Raster.Uhd)])
    {
        Encodes = [new FormatCapability(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Hd)], EncodedMegapixelsPerSecond = 120.5,
    };

    private static readonly Part[] All =
    [
        new ProcessorPart("p", "P, \"fast\"", 200, "A", new Processor("P", 8, 16, 1.4, 4), 95, new Graphics("own", 900, 60, 4, null), Engine),
        new BoardPart("b", "B", 100, "A", "DDR5", 4, 128, 1, 1, 2, BoardSize.Middle),
        new MemoryPart("m", "M", 90.5m, "DDR5", 2, 16, 5600) { PricedOn = new DateOnly(2026, 11, 2) },
        new GraphicsPart("g", "4000", 300, new Graphics("G", 9000, 300, 8, 15.75), 150, 240),
        new DrivePart("d", "D", 70, DriveInterface.Nvme, "NVMe", 3000, 2000, 0.1), new SupplyPart("s", "S", 80, 450),
        new CoolerPart("k", "K", 40, 125, 120, 34), new CasePart("c", "C", 60, MachineForm.Tower, BoardSize.Middle, 300, 160),
    ];

    [Fact]
    public void Parts_of_every_kind_come_back_as_they_went_out()
    {
        var (parts, problems) = CatalogueCsv.Read(CatalogueCsv.Write(All), []);

        Assert.Empty(problems);
        Assert.Equal(CatalogueJson.Write(All), CatalogueJson.Write(parts));
    }

    /// <summary>Each kind of part is stated by its columns and no other, and no column is without a kind.</summary>
    [Fact]
    public void The_columns_of_a_kind_hold_all_that_is_stated_of_a_part()
    {
        foreach (var part in All)
        {
            var cells = PartCells.Of(part);
            var of = PartCells.ByKind[cells["kind"]];
            Assert.Empty(cells.Keys.Except(["kind", "id", "name", "price", "pricedOn", .. of]));
            var (again, problem) = PartCells.Read("here", null, cells.Select(cell => (cell.Key, cell.Value)));
            Assert.Null(problem);
            Assert.Equal(CatalogueJson.Write([part]), CatalogueJson.Write([again!]));
        }

        Assert.Equal(8, PartCells.ByKind.Count);
        Assert.Equal("There is no column colour.", PartCells.Read("here", All[5], [("colour", "red")]).Problem!.Why);
    }

    [Fact]
    public void Ids_and_prices_are_a_new_list_of_prices()
    {
        var (parts, problems) = CatalogueCsv.Read("ID,Price,pricedon\nm,79.9,2026-11-20\nnone,5,\ns,,\n", All);

        Assert.Equal(
            [All[2] with { Price = 79.9m, PricedOn = new DateOnly(2026, 11, 20) }, All[5]], parts);
        Assert.Equal(
            ("line 3", "There is no part 'none' to change, and a new one needs its kind."),
            (Assert.Single(problems).Where, problems[0].Why));
    }

    [Fact]
    public void A_bad_line_is_named_and_costs_no_other()
    {
        var (parts, problems) = CatalogueCsv.Read(
            "kind,id,name,price,watts,engine.capabilities,colour\nsupply,a,A,10,400,,\nsupply,b,B,-1,400,,\nsail,c,C,1,400,,\nsupply,d,D,ten,400,,\n"
            + "supply,e,E,10,,,\n,f,F,10,400,,\nsupply,g,G,10,400,hevc,\nsupply,h,H,20,500,,red\n", []);

        Assert.Equal(["a", "h"], parts.Select(part => part.Id));
        Assert.Equal(
            ["line 1", "line 3", "line 4", "line 5", "line 6", "line 7", "line 8"], problems.Select(problem => problem.Where));
        Assert.Equal("There is no column colour; it was ignored.", problems[0].Why);
        Assert.Equal("'ten' in price is not a number.", problems[3].Why);
        Assert.Contains("'hevc' in engine.capabilities is not a format", problems[6].Why, StringComparison.Ordinal);
    }

    [Fact]
    public void Ten_thousand_bad_lines_are_ten_thousand_sentences()
    {
        var text = "kind,name,price,watts\n" + string.Concat(Enumerable.Repeat("supply,S,-1,0\n", 10_000));
        var (kept, problems) = CatalogueCsv.Read(text, All);

        Assert.Empty(kept);
        Assert.Equal(10_000, problems.Count);
    }

    [Theory]
    [InlineData("")]
    [InlineData("no table")]
    [InlineData("name,price\nA,1\n")]
    public void What_holds_no_parts_is_an_error_in_words(string text) =>
        Assert.Throws<ShelfException>(() => CatalogueCsv.Read(text, All));
}
