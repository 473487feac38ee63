using HardyBench.Core;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Formats.Machines;
using HardyBench.Store;
using HardyBench.Workbench.Demo;

namespace HardyBench.Workbench.Tests.Machines;

/// <summary>The shelf as people keep it.</summary>
public sealed class ShelfTests : IAsyncLifetime
{
    private Bench bench = null!;

    public async ValueTask InitializeAsync() => bench = await OpenAsync(TestData.NewFolder("shelf"));

    public ValueTask DisposeAsync()
    {
        bench.Dispose();
        return ValueTask.CompletedTask;
    }

    [Fact]
    public async Task A_machine_that_ships_can_be_changed_and_stays_changed_when_the_folder_is_opened_again()
    {
        var (desk, version) = await bench.Machines.StoredAsync("curlew-desk");
        Assert.Equal(0, version);

        Assert.Equal(1, await bench.Machines.KeepAsync(desk with { Price = 1500 }, version));

        using var again = await OpenAsync(bench.Folder.Path);
        Assert.Equal(
            (1500m, 1),
            (
                (await again.Machines.StoredAsync("curlew-desk")).Thing.Price!.Value,
                (await again.Machines.StoredAsync("curlew-desk")).Version
            )
        );
        await Assert.ThrowsAsync<VersionConflictException>(() => bench.Machines.KeepAsync(desk, version));
    }

    [Fact]
    public async Task A_machine_taken_off_the_shelf_stays_off_until_it_is_brought_back()
    {
        await bench.Machines.SetDeletedAsync("curlew-desk", deleted: true);
        await Assert.ThrowsAsync<UnknownThingException>(() => bench.Machines.FindAsync("curlew-desk"));
        await Assert.ThrowsAsync<UnknownThingException>(() => bench.Machines.SetDeletedAsync("curlew-desk", deleted: true));
        using var again = await OpenAsync(bench.Folder.Path);
        Assert.DoesNotContain(await again.Machines.AllAsync(), machine => machine.Id == "curlew-desk");

        await bench.Machines.SetDeletedAsync("curlew-desk", deleted: false);

        Assert.Equal("Curlew desk", (await bench.Machines.FindAsync("curlew-desk")).Name);
    }

    [Fact]
    public async Task A_duplicate_has_a_name_and_an_id_of_its_own()
    {
        var copy = await bench.Machines.DuplicateAsync("curlew-desk");
        var second = await bench.Machines.DuplicateAsync("curlew-desk");

        Assert.Equal(("curlew-desk-2", "Curlew desk (2)"), (copy.Thing.Id, copy.Thing.Name));
        Assert.Equal("Curlew desk (3)", second.Thing.Name);
        Assert.Equal(32, (await bench.Machines.FindAsync(copy.Thing.Id)).Memory.Gigabytes);
    }

    [Fact]
    public async Task This_machine_can_be_duplicated_but_not_changed()
    {
        var copy = await bench.Machines.DuplicateAsync(bench.Machines.Host.Id);
        Assert.Equal(MachineKind.StandIn, copy.Thing.Kind);
        await Assert.ThrowsAsync<MachineRefusedException>(() => bench.Machines.SetDeletedAsync(bench.Machines.Host.Id, deleted: true));
        var described = await bench.Machines.FindAsync(bench.Machines.Host.Id);
        await Assert.ThrowsAsync<MachineRefusedException>(() => bench.Machines.KeepAsync(described, 0));
    }

    [Theory]
    [InlineData("json")]
    [InlineData("csv")]
    public async Task A_shelf_that_goes_out_and_comes_back_adds_nothing_and_says_so(string format)
    {
        var before = (await bench.Machines.AllAsync()).Count;

        var outcome = await bench.Machines.ImportAsync($"shelf.{format}", await bench.Machines.ExportAsync([], format));

        Assert.Empty(outcome.Added);
        Assert.Equal(DemoMachines.All.Count, outcome.Problems.Count);
        Assert.Equal(before, (await bench.Machines.AllAsync()).Count);
    }

    [Fact]
    public async Task Good_lines_of_a_file_come_in_and_bad_ones_are_named()
    {
        var outcome = await bench.Machines.ImportAsync("machines.csv", "name,cores,memory_gb\nCurlew desk,8,32\nBroken,0,32\n");

        Assert.Equal("curlew-desk-2", Assert.Single(outcome.Added).Thing.Id);
        Assert.Equal("line 3", Assert.Single(outcome.Problems).Where);
        await Assert.ThrowsAsync<ShelfException>(() => bench.Machines.ImportAsync("machines.txt", "x"));
    }

    [Fact]
    public async Task More_machines_than_a_shelf_holds_are_refused_and_nothing_is_added()
    {
        var table = "name,cores,memory_gb\n" + string.Concat(Enumerable.Range(0, 2500).Select(n => $"M{n},4,8\n"));
        await Assert.ThrowsAsync<MachineRefusedException>(() => bench.Machines.ImportAsync("many.csv", table));
        Assert.Equal(DemoMachines.All.Count + 1, (await bench.Machines.AllAsync()).Count);
    }

    [Fact]
    public async Task A_machine_so_slow_that_it_would_never_end_is_refused_in_words()
    {
        var slow = (await bench.Machines.FindAsync("gannet-tower")) with
        {
            Name = "Snail",
            Processor = new Processor("", 256, 256, 0.05, null),
            MediaEngines =
            [
                new MediaEngine(
                    "e",
                    1,
                    [
                        new FormatCapability(
                            HardyBench.Core.Footage.Codec.Avc,
                            HardyBench.Core.Footage.ChromaSubsampling.Half,
                            10,
                            new(8192, 4320)
                        ),
                    ]
                ),
            ],
        };
        var id = (await bench.Machines.AddAsync(slow)).Thing.Id;
        var timeline = (await bench.Timelines.FindAsync("touring-night")).Timeline;
        var plan = await bench.Plays.PlanAsync("touring-night", id, new() { Policy = PlayingPolicy.KeepFrames });
        plan = plan with
        {
            Timeline = timeline with { Passages = [timeline.Passages[0] with { FrameCount = 25_000 }] },
            Clips = plan.Clips.ToDictionary(
                clip => clip.Key,
                clip => clip.Value with { FrameCount = 25_000, Format = clip.Value.Format with { Raster = new(3840, 2160) } }
            ),
        };

        var refused = await Assert.ThrowsAsync<HardyBench.Core.Playback.PlanRefusedException>(() =>
            bench.Plays.PlayAsync(plan, null, CancellationToken.None)
        );
        Assert.Contains("hours this machine would be at frame", refused.Message, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_sheet_shows_the_machines_that_were_chosen_for_it()
    {
        Assert.Equal(
            [bench.Machines.Host.Id, "sandpiper-slate", "curlew-desk", "gannet-tower"],
            (await bench.Machines.ShownAsync("touring-night")).Select(machine => machine.Id)
        );

        await bench.Machines.ShowAsync("touring-night", ["heron-64", "heron-8", "heron-64"]);
        Assert.Equal(["heron-64", "heron-8"], (await bench.Machines.ShownAsync("touring-night")).Select(machine => machine.Id));
        Assert.Equal(bench.Machines.Host.Id, (await bench.Machines.ShownAsync("another"))[0].Id);

        await bench.Machines.SetDeletedAsync("heron-8", deleted: true);
        Assert.Equal("heron-64", Assert.Single(await bench.Machines.ShownAsync("touring-night")).Id);
        await Assert.ThrowsAsync<UnknownThingException>(() => bench.Machines.ShowAsync("touring-night", ["nobody"]));
        await Assert.ThrowsAsync<MachineRefusedException>(() => bench.Machines.ShowAsync("touring-night", []));
    }

    [Fact]
    public async Task A_run_keeps_the_description_that_its_machine_had()
    {
        var plan = await bench.Plays.PlanAsync("touring-night", "curlew-desk", new());
        var run = await bench.Plays.PlayAsync(plan, null, CancellationToken.None);
        var (desk, version) = await bench.Machines.StoredAsync("curlew-desk");
        await bench.Machines.KeepAsync(desk with { Memory = desk.Memory with { Gigabytes = 64 } }, version);

        Assert.Equal(32, (await bench.Runs.FindAsync(run.Id))!.Run.Header.Machine.Memory.Gigabytes);
        Assert.Equal(64, (await bench.Plays.PlanAsync("touring-night", "curlew-desk", new())).Machine.Memory.Gigabytes);
    }

    [Fact]
    public void Every_machine_that_ships_can_be_worked_with_and_families_differ_in_one_part()
    {
        Assert.All(DemoMachines.All, machine => Assert.Empty(MachineLimits.Problems(machine)));
        Assert.True(DemoMachines.All.Count >= 14);
        Assert.Equal(DemoMachines.All.Count, DemoMachines.All.Select(machine => machine.Id).Distinct().Count());
        var (small, large) = (Of("heron-8"), Of("heron-64"));
        Assert.Equal(MachineJson.Write([large]), MachineJson.Write([small with
        {
            Id = large.Id, Name = large.Name, Summary = large.Summary, Price = large.Price, Memory = small.Memory with { Gigabytes = 64 },
        }]));
    }

    private static Machine Of(string id) => DemoMachines.All.Single(machine => machine.Id == id);

    private static Task<Bench> OpenAsync(string folder) => Bench.OpenAsync(folder, small: true, CancellationToken.None);
}
