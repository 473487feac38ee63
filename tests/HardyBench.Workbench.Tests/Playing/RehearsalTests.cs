using HardyBench.Workbench.Data;
using HardyBench.Workbench.Plays;

namespace HardyBench.Workbench.Tests.Playing;

public sealed class RehearsalTests
{
    [Fact]
    public async Task A_rehearsal_leaves_nothing_behind_also_when_it_is_broken_off()
    {
        var folder = new DataFolder(TestData.NewFolder());
        folder.MakeReady();

        await Rehearsal.PlayAsync(folder, CancellationToken.None);
        using var stop = new CancellationTokenSource();
        await stop.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => Rehearsal.PlayAsync(folder, stop.Token));

        Assert.Empty(Directory.GetDirectories(folder.Players));
        Assert.False(File.Exists(folder.Database));
    }
}
