using HardyBench.Core.Calibration;
using HardyBench.Core.Machines;
using HardyBench.Workbench.Demo;

namespace HardyBench.Workbench.Tests.Machines;

/// <summary>What people call their machines never stands in the place of this machine's twin.</summary>
public sealed class TwinTests : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("hardybench-twin-").FullName;

    [Fact]
    public async Task No_other_machine_is_given_the_twins_id()
    {
        using var bench = await Bench.OpenAsync(folder, small: true, CancellationToken.None);
        var twin = Twin.IdOf(bench.Machines.Host.Id);
        var foreign = DemoMachines.All[0] with { Id = twin, Name = "This twin", Costs = new MachineCosts([], [], 0.1, DateTimeOffset.UtcNow) };

        Assert.NotEqual(twin, (await bench.Machines.AddAsync(foreign)).Thing.Id);
        Assert.NotEqual(twin, (await bench.Machines.AddAsync(foreign with { Id = string.Empty })).Thing.Id);
        Assert.Null(await bench.Calibrations.NewestAsync());
        Assert.Empty(await bench.Calibrations.PredictionsAsync());
    }

    public void Dispose() => Directory.Delete(folder, recursive: true);
}
