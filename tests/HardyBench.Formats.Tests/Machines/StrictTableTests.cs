using HardyBench.Formats.Machines;

namespace HardyBench.Formats.Tests.Machines;

/// <summary>Nothing of a table of machines goes missing without a word.</summary>
public sealed class StrictTableTests
{
    [Theory]
    [InlineData("name,cores,memory_gb,cores\nA,8,32,9\n", "The column cores occurs twice")]
    public void A_table_that_means_two_things_is_refused(string text, string why) =>
        Assert.Contains(why, Assert.Throws<ShelfException>(() => MachineCsv.Read(text)).Message, StringComparison.Ordinal);

    [Theory]
    [InlineData("name,cores,memory_gb\nA,8,32,7\n", "1 more cells than there are columns")]
    [InlineData("name,cores,memory_gb,graphics_gflops\nA,8,32,900\n", "The column graphics is empty, and graphics_gflops is not")]
    [InlineData("name,cores,memory_gb,on_battery\nA,8,32,yes\n", "on_battery is yes, and battery_w is empty")]
    [InlineData("name,cores,memory_gb,limit_c\nA,8,32,90\n", "idle_w")]
    public void A_line_of_which_something_cannot_be_used_is_left_out_and_says_what(string text, string why)
    {
        var read = MachineCsv.Read(text);

        Assert.Empty(read.Machines);
        Assert.Contains(why, Assert.Single(read.Problems).Why, StringComparison.Ordinal);
    }

    [Fact]
    public void A_member_that_nothing_knows_is_named_and_the_machine_is_added()
    {
        var whole = MachineJson.Write(MachineCsv.Read("name,cores,memory_gb\nA,8,32\n").Machines);

        var read = MachineJson.Read(whole.Replace("\"cores\":", "\"sails\": 3, \"cores\":", StringComparison.Ordinal));

        Assert.Single(read.Machines);
        Assert.Contains("processor.sails", Assert.Single(read.Problems).Why, StringComparison.Ordinal);
    }

    [Fact]
    public void Half_of_a_character_is_refused()
    {
        var refused = Assert.Throws<ShelfException>(() => MachineJson.Read("[{\"name\":\"\\ud800\"}]"));

        Assert.NotEmpty(refused.Message);
    }
}
