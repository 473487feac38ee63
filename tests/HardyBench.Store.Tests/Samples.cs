using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using Microsoft.Data.Sqlite;

namespace HardyBench.Store.Tests;

internal static class Samples
{
    /// <summary>Runs a statement past EF Core, on a connection of its own.</summary>
    public static async Task ExecuteAsync(string file, string sql)
    {
        await using var connection = new SqliteConnection($"Data Source={file};Pooling=False");
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = sql;
        await command.ExecuteNonQueryAsync();
    }

    /// <summary>Two seconds at 25 frames a second, all of them on time.</summary>
    public static Run Sample()
    {
        var rate = new FrameRate(25);
        var header = new RunHeader(
            new Timeline("t", "T", Raster.Hd, rate, [new Passage("asked", 50, [new Layer("c", [])], [])]),
            new Machine("m", "M", MachineKind.StandIn, "", new Processor("p", 2, 2, 1, 3), [], [], new Memory(8, 1, 1, 3200), [], null, 5),
            new PlaybackSettings(),
            new Conditions("p", null, [0], null, null, 1),
            new Dictionary<string, string>(),
            DateTimeOffset.UnixEpoch);
        var frames = Enumerable.Range(0, 50).Select(n => new FrameRecord(
            n, rate.StartOf(n), rate.StartOf(n), rate.StartOf(n), FrameStatus.OnTime, DropReason.None, default, default, default,
                default, 2));
        return new Run(header, RunEnding.Finished, TimeSpan.Zero, [.. frames], [], []);
    }
}
