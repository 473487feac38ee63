using HardyBench.Core.Playback;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Formats.Runs;
using HardyBench.Workbench.Data;

namespace HardyBench.Workbench.Plays;

/// <summary>Plays once in a folder of its own that is thrown away: what a runtime does when something is played for the first time is done
/// before anything is measured, and a first play is as quiet as a tenth. No clip lies there, so nothing is decoded and it takes a
/// moment.</summary>
public static class Rehearsal
{
    /// <param name="below">Where that folder is, beside those of players: what a killed program leaves of it goes with what it leaves of
    /// them.</param>
    /// <exception cref="PlayerUnavailableException">There is no player.</exception>
    public static async Task PlayAsync(DataFolder below, CancellationToken stop)
    {
        var folder = Directory.CreateDirectory(Path.Combine(below.Players, $"{Environment.ProcessId}-rehearsal-{Guid.NewGuid():n}"));
        try
        {
            using var bench = await Bench.OpenAsync(folder.FullName, small: true, stop);
            var timeline = (await bench.Timelines.AllAsync())[0];
            var trial = await bench.Trials.AskAsync(new PlayTrial(), timeline.Id, bench.Machines.Host.Id, new PlaybackSettings());
            await bench.Trials.PlayAsync(trial.Id, null, stop);
            // Nothing lasted long enough to be sampled.
            await RunPiece.ReadAsync(
                RunPiece.Write(
                    new RunProgress([], [.. Enum.GetValues<LoadKind>().Select(kind => new LoadReading(TimeSpan.Zero, kind, 0, 1))], [])
                )
            );
        }
        finally
        {
            Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
            folder.Delete(recursive: true);
        }
    }
}
