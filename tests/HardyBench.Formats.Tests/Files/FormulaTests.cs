using HardyBench.Formats.Machines;

namespace HardyBench.Formats.Tests.Files;

/// <summary>A table that a spreadsheet opens carries nothing out.</summary>
public sealed class FormulaTests
{
    [Theory]
    [InlineData("=HYPERLINK(\"http://x\")")]
    [InlineData("+1+cmd")]
    [InlineData("-2+3")]
    [InlineData("@SUM(A1)")]
    [InlineData("'quoted")]
    public void A_name_that_begins_like_a_formula_is_marked_and_comes_back_as_it_was(string name)
    {
        var machine = MachineCsv.Read("name,cores,memory_gb\nPlain,8,32\n").Machines.Single() with { Name = name };

        var written = MachineCsv.Write([machine]);

        Assert.Contains("'" + name.Replace("\"", "\"\"", StringComparison.Ordinal), written, StringComparison.Ordinal);
        Assert.Equal(name, MachineCsv.Read(written).Machines.Single().Name);
    }

    [Fact]
    public void A_name_that_is_a_number_below_zero_is_no_formula()
    {
        var written = MachineCsv.Write(MachineCsv.Read("name,cores,memory_gb\n-5,8,32\n").Machines);

        Assert.Contains("-5", written, StringComparison.Ordinal);
        Assert.DoesNotContain("'-5", written, StringComparison.Ordinal);
    }
}
