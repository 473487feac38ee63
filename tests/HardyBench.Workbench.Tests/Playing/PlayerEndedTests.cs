using System.Diagnostics;
using HardyBench.Core.Playback;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Core.Trials;
using HardyBench.Workbench.Playing;
using HardyBench.Workbench.Trials;

namespace HardyBench.Workbench.Tests.Playing;

/// <summary>What becomes of a run, and of its trial, whose player ends under it.</summary>
public sealed class PlayerEndedTests
{
    [Fact]
    public async Task The_run_is_kept_as_cut_short_and_its_trial_fails_with_the_same_sentence()
    {
        using var bench = await Bench.OpenAsync(await TestData.NewDataFolderAsync(), small: true, CancellationToken.None);
        var asked = await bench.Trials.AskAsync(new PlayTrial(), "touring-night", bench.Machines.Host.Id, new PlaybackSettings());

        var ended = await Assert.ThrowsAsync<PlayerEndedException>(() =>
            bench.Trials.PlayAsync(asked.Id, new Ending(bench), CancellationToken.None)
        );

        var run = Assert.Single(await bench.RunList.AllAsync());
        var kept = (await bench.Runs.FindAsync(run.Id))!.Run;
        Assert.Equal(RunEnding.CutShort, kept.Ending);
        Assert.NotEmpty(kept.Frames);
        Assert.Equal(ended.Message, Assert.Single(kept.Failures).Message);
        Assert.Contains("SIGKILL", ended.Message, StringComparison.Ordinal);
        var report = await bench.Trials.ReportAsync(asked.Id);
        Assert.Equal((TrialState.Failed, ended.Message), (report.Trial.State, report.Trial.Problem));
    }

    /// <summary>Ends the player as soon as it has played something.</summary>
    private sealed class Ending(Bench bench) : ITrialListener
    {
        public void StepBegan(TrialStep step, int number, int? of)
        {
        }

        public void Making(string what)
        {
        }

        public void Started(long id, RunHeader header)
        {
        }

        public void Progressed(long id, RunProgress progress)
        {
            if (progress.Frames.Count > 0)
            {
                foreach (var player in bench.Players.Processes)
                {
                    Process.Start("kill", ["-KILL", $"{player}"]).WaitForExit();
                }
            }
        }

        public void Pictured(long id, int frame, byte[] jpeg)
        {
        }
    }
}
