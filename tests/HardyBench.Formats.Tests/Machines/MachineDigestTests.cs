using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Formats.Machines;

namespace HardyBench.Formats.Tests.Machines;

public sealed class MachineDigestTests
{
    private static readonly Machine Plain = MachineCsv.Read("name,cores,memory_gb\nA,8,32\n").Machines.Single();

    private static readonly CodecCost Cost = new(Codec.Avc, false, 2e-9, 0, 0, 0, 0.2, 1e9, 1e9);

    [Fact]
    public void Names_and_prices_move_no_result_and_other_measured_costs_do()
    {
        var measured = Plain with { Costs = new MachineCosts([Cost], [], 0.1, DateTimeOffset.UnixEpoch) };

        Assert.Equal(MachineDigest.Of(Plain), MachineDigest.Of(Plain with { Name = "B", Price = 1 }));
        Assert.NotEqual(MachineDigest.Of(Plain), MachineDigest.Of(measured));
        Assert.NotEqual(
            MachineDigest.Of(measured),
            MachineDigest.Of(measured with { Costs = measured.Costs! with { Decoding = [Cost with { PerSampleByte = 3e-9 }] } }));
    }
}
