using HardyBench.Core.Calibration;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Store;
using HardyBench.Telemetry;
using HardyBench.Workbench.Machines;

namespace HardyBench.Workbench.Tests.Machines;

/// <summary>This machine is a machine with an id of its own, and a data folder knows on which computers it was used.</summary>
public sealed class HostTests : IDisposable
{
    private static readonly DateTimeOffset Day = new(2026, 3, 4, 5, 6, 7, TimeSpan.Zero);

    private static readonly FrameRate Rate = new(25, 1);

    private readonly DirectoryInfo folder = Directory.CreateTempSubdirectory("hardybench-hosts-");

    [Fact]
    public async Task This_machine_keeps_the_id_that_it_got_at_the_first_start()
    {
        string id;
        using (var bench = await OpenAsync())
        {
            id = bench.Machines.Host.Id;
            Assert.Matches("^machine-[0-9a-f]{6}$", id);
            Assert.Equal((id, "This machine", MachineKind.Real), Described((await bench.Machines.AllAsync())[0]));
            Assert.Null(bench.Machines.Host.MovedFrom);
        }

        using var again = await OpenAsync();
        Assert.Equal(id, again.Machines.Host.Id);
        Assert.Empty(again.Machines.Host.Others);
    }

    [Fact]
    public async Task Another_computer_is_another_machine_and_the_first_one_is_known_again()
    {
        using var bench = await OpenAsync();
        var databases = new BenchDatabaseFactory(bench.Folder.Database);
        var (store, shelf, writer, lists) = (
            new HostStore(databases), Shelves.Machines(databases), new RunWriter(databases), new RunList(databases));
        var run = Shelf.PlayOf(Shelf.PlanOf(
            Shelf.Of("curlew-desk"), [new(Codec.Vc3, ChromaSubsampling.Half, 8, Raster.Hd, Rate, 1, DataRate.FromMegabits(145))], Rate, 50,
            PreviewScale.Full, Raster.Hd));
        var first = await HostJobs.RecogniseAsync(store, Computer("a"), Day);
        var id = await writer.AddAsync(run with { Header = run.Header with { Machine = Here(first) } });
        await shelf.ReplaceAsync(Shelf.Of("curlew-desk") with { Id = Twin.IdOf(first.Id), Name = Twin.NameOf("This machine") });

        var second = await HostJobs.RecogniseAsync(store, Computer("b"), Day.AddDays(1));

        Assert.NotEqual(first.Id, second.Id);
        Assert.Equal(first.Id, second.MovedFrom?.Id);
        Assert.True(second.IsReal(first.Id));
        await AssertNamedAsync("Computer used from 2026-03-04");
        var earlier = Assert.Single(await bench.Runs.OfEarlierAsync(Here(second), first.Id));
        Assert.Equal((1, "Computer used from 2026-03-04"), (earlier.Runs, earlier.Machine.Name));
        Assert.Null((await HostJobs.RecogniseAsync(store, Computer("b"), Day.AddDays(2))).MovedFrom);

        var back = await HostJobs.RecogniseAsync(store, Computer("a"), Day.AddDays(3));

        Assert.Equal((first.Id, second.Id), (back.Id, back.MovedFrom?.Id));
        await AssertNamedAsync("This machine");

        async Task AssertNamedAsync(string name)
        {
            Assert.Equal(name, (await bench.Runs.FindAsync(id))!.Run.Header.Machine.Name);
            Assert.Equal(name, Assert.Single((await lists.PageAsync(new RunQuery(Words: name.ToLowerInvariant()))).Runs).MachineName);
            Assert.Equal(Twin.NameOf(name), (await shelf.AllAsync()).Single(one => one.Thing.Id == Twin.IdOf(first.Id)).Thing.Name);
        }
    }

    [Fact]
    public async Task The_column_of_another_computer_is_that_of_this_one()
    {
        string other;
        using (var bench = await OpenAsync())
        {
            var databases = new BenchDatabaseFactory(bench.Folder.Database);
            other = (await HostJobs.RecogniseAsync(new HostStore(databases), Computer("other"), Day)).Id;
            await new DocumentStore(databases).KeepSheetMachinesAsync("touring-night", [other, "curlew-desk"]);
            // Where the system has no id, the computer used last would be taken for this one.
            await HostJobs.RecogniseAsync(new HostStore(databases), SystemFiles.Live, Day);
        }

        using var moved = await OpenAsync();
        var columns = (await moved.Machines.ShownAsync("touring-night")).Select(one => one.Id);
        Assert.Equal([moved.Machines.Host.Id, "curlew-desk"], columns);
        Assert.True(moved.Machines.Host.IsReal(other));
        Assert.Equal(HostFingerprint.Of(SystemFiles.Live) is not null, moved.Machines.Host.Id != other);
    }

    public void Dispose() => folder.Delete(recursive: true);

    private static Machine Here(HostJobs host) => host.Machine;

    private static (string, string, MachineKind) Described(Machine machine) => (machine.Id, machine.Name, machine.Kind);

    private Task<Bench> OpenAsync() => Bench.OpenAsync(Path.Combine(folder.FullName, "data"), small: true, CancellationToken.None);

    /// <summary>The files of a system with an id.</summary>
    private SystemFiles Computer(string name)
    {
        var root = folder.CreateSubdirectory(name);
        File.WriteAllText(
            Path.Combine(root.CreateSubdirectory("etc").FullName, "machine-id"),
            Convert.ToHexStringLower(System.Text.Encoding.ASCII.GetBytes(name.PadRight(16))));
        return new SystemFiles(root.FullName);
    }
}
