using HardyBench.Workbench.Demo;

namespace HardyBench.Workbench.Tests;

/// <summary>Programs that open a data folder at its beginning, at once or one after another.</summary>
public sealed class OpeningTests
{
    [Fact]
    public async Task Programs_that_open_a_new_folder_at_once_all_find_what_ships_and_nothing_twice()
    {
        var folder = Directory.CreateTempSubdirectory("hardybench-opening-").FullName;
        var benches = await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => Task.Run(() => OpenAsync(folder))));

        foreach (var bench in benches)
        {
            Assert.Equal(DemoMachines.All.Select(machine => machine.Id).Order(), (await bench.Machines.AllAsync())
                .Select(machine => machine.Id).Intersect(DemoMachines.All.Select(machine => machine.Id)).Order());
            Assert.Equal(["touring-night", "closing-gala"], (await bench.Timelines.AllAsync()).Select(timeline => timeline.Id));
            bench.Dispose();
        }

        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public async Task What_was_half_made_goes_at_the_next_start_unless_another_program_may_still_make_it()
    {
        var folder = Directory.CreateTempSubdirectory("hardybench-opening-").FullName;
        var first = await OpenAsync(folder);
        var left = Path.Combine(first.Folder.Clips, "a.part.mov");
        await File.WriteAllTextAsync(left, "half");

        using (await OpenAsync(folder))
        {
            Assert.True(File.Exists(left));
        }

        first.Dispose();
        using (await OpenAsync(folder))
        {
            Assert.False(File.Exists(left));
        }

        Directory.Delete(folder, recursive: true);
    }

    private static Task<Bench> OpenAsync(string folder) => Bench.OpenAsync(folder, small: true, CancellationToken.None);
}
