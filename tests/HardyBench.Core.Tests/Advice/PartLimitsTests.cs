using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Machines;

namespace HardyBench.Core.Tests.Advice;

/// <summary>A number of a part that becomes a number of a machine has the limits that it has there.</summary>
public sealed class PartLimitsTests
{
    private static readonly DrivePart Drive = new("d", "Drive", 90, DriveInterface.Sata, "SATA", 500, 450, 0.1);
    private static readonly BoardPart Board = new("b", "Board", 90, "s", "DDR5", 4, 128, 2, 2, 4, default);
    private static readonly MemoryPart Memory = new("m", "Memory", 90, "DDR5", 2, 16, 5600);

    public static TheoryData<string, Func<double, Part>> Numbers => new()
    {
        { "drives.readMegabytesPerSecond", value => Drive with { ReadMegabytesPerSecond = value } },
        { "drives.writeMegabytesPerSecond", value => Drive with { WriteMegabytesPerSecond = value } },
        { "drives.latencyMilliseconds", value => Drive with { LatencyMilliseconds = value } },
        { "memory.sticks", value => Memory with { Sticks = (int)value } },
        { "memory.megatransfersPerSecond", value => Memory with { MegatransfersPerSecond = (int)value } },
        { "places.memorySlots", value => Board with { MemorySlots = (int)value } },
        { "places.mostGigabytes", value => Board with { MostGigabytes = value } },
        { "places.freeNvme", value => Board with { NvmeSlots = (int)value } },
        { "places.freeSata", value => Board with { SataPorts = (int)value } },
        { "places.coolerWatts", value => new CoolerPart("c", "Cooler", 90, value, 150, 30) },
        { "places.supplyWatts", value => new SupplyPart("s", "Supply", 90, value) },
    };

    [Theory]
    [MemberData(nameof(Numbers))]
    public void A_part_has_the_limits_of_the_machine_that_it_is_put_into(string path, Func<double, Part> part)
    {
        var figure = MachineFigures.All.Single(figure => figure.Path == path);

        Assert.Empty(PartLimits.Problems(part(figure.Min)));
        Assert.Empty(PartLimits.Problems(part(figure.Max)));
        Assert.Contains(
            FormattableString.Invariant($"{figure.Min} to {figure.Max}, not"),
            Assert.Single(PartLimits.Problems(part(figure.Max + 1))), StringComparison.Ordinal);
        Assert.Single(PartLimits.Problems(part(figure.Min - 1)));
    }
}
