using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Formats.Timelines;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace HardyBench.Store.Tests;

/// <summary>Data of every earlier version is opened with its runs, after a copy was made; data of a later one is left alone.</summary>
public sealed class OldDataTests
{
    private readonly string folder = Directory.CreateTempSubdirectory("hardybench-old-").FullName;

    public static TheoryData<string> Earlier
    {
        get
        {
            using var database = new BenchDatabaseFactory("none.db").CreateDbContext();
            return [.. database.Database.GetMigrations().SkipLast(1)];
        }
    }

    [Theory]
    [MemberData(nameof(Earlier))]
    public async Task A_database_of_an_earlier_version_is_opened_with_its_runs_after_a_copy_was_made(string migration)
    {
        var file = Path.Combine(folder, $"{migration}.db");
        var databases = new BenchDatabaseFactory(file);
        await using (var database = databases.CreateDbContext())
        {
            await database.GetService<IMigrator>().MigrateAsync(migration);
        }

        var row = new Dictionary<string, object?>(await NewRunAsync()) { ["MachineId"] = "this" };
        if (string.CompareOrdinal(migration, "20261202") < 0)
        {
            // Of the machine that it ran on, earlier versions kept only that.
            row["MachineDigest"] = "this";
        }

        await InsertRunAsync(file, row);

        await databases.MigrateAsync(CancellationToken.None);

        var (runs, judging) = (new RunReader(databases), new RunJudging(databases, new RunWriter(databases)));
        Assert.Equal(RunEnding.Finished, Assert.Single(await new RunList(databases).AllAsync()).Ending);
        var run = (await runs.FindAsync(1))!.Run;
        Assert.Equal((50, "asked"), (run.Frames.Count, run.Header.Timeline.Passages[0].Question));
        await judging.RecomputeDigestsAsync();
        Assert.Equal(
            1, (await runs.NewestBareAsync(TimelineJson.Digest(run.Header.Timeline), run.Header.Machine with { Id = "this" }))?.Id);
        Assert.Equal(["this"], (await new HostStore(databases).AllAsync()).Select(host => host.Id));
        Assert.Empty(await new TrialStore(databases).ListAsync());
        var copy = Assert.Single(Directory.GetFiles(folder, $"{migration}.db.before-*"));
        Assert.Equal([migration], (await AppliedAsync(copy)).TakeLast(1));
        Assert.Equal(1L, await NumberAsync(copy, "SELECT COUNT(*) FROM Runs"));
    }

    /// <summary>A machine had one graphics unit, one media engine and one drive; a run's role was told from its words; nothing was kept
    /// beside it.</summary>
    [Fact]
    public async Task What_earlier_versions_kept_of_machines_roles_and_findings_is_brought_up_to_date()
    {
        var file = Path.Combine(folder, "units.db");
        var databases = new BenchDatabaseFactory(file);
        await using (var database = databases.CreateDbContext())
        {
            await database
                .GetService<IMigrator>()
                .MigrateAsync(Earlier.Select(row => row.Data).TakeWhile(name => !name.EndsWith("_Shelf", StringComparison.Ordinal)).Last());
        }

        const string OldMachine =
            """{"id":"m","name":"M","kind":"standIn","summary":"","processor":{"name":"p","cores":2,"threads":2,"relativeCoreSpeed":1,"clockGigahertz":3},"graphics":{"name":"g","peakGigaflops":900,"bandwidthGigabytesPerSecond":55,"memoryGigabytes":4,"busGigabytesPerSecond":null},"mediaEngine":null,"memory":{"gigabytes":8,"inUseGigabytes":1,"sticks":1,"megatransfersPerSecond":3200},"mediaDrive":{"kind":"SATA","megabytesPerSecond":500,"latency":"00:00:00.0001500"},"cooling":null,"price":5}""";
        var run = new Dictionary<string, object?>(await NewRunAsync()) { ["TrialId"] = 1L, ["Label"] = "passage 3" };
        var header = System.Text.Json.Nodes.JsonNode.Parse((string)run["HeaderJson"]!)!;
        header["machine"] = System.Text.Json.Nodes.JsonNode.Parse(OldMachine);
        run["HeaderJson"] = header.ToJsonString();
        await InsertRunAsync(file, run);
        await NumberAsync(
            file,
            $"INSERT INTO Documents (Kind, Id, \"Order\", Version, Json) VALUES ('machine', 'm', 0, 0, '{OldMachine}') RETURNING 1"
        );
        SqliteConnection.ClearAllPools();

        await databases.MigrateAsync(CancellationToken.None);

        var (runs, judging) = (new RunReader(databases), new RunJudging(databases, new RunWriter(databases)));
        Assert.Equal([1], await judging.ToJudgeAsync());
        Assert.Null(await judging.JudgeAgainAsync(1));
        Assert.Empty(await judging.ToJudgeAsync());
        var judged = (await runs.JudgedAsync(1))!;
        Assert.Equal(50, Assert.Single(judged.Passages).Teeth.Length);
        Assert.Equal(2, (await runs.FindAsync(1))!.Place!.Role.Passage);
        foreach (
            var machine in new[]
            {
                (await runs.FindAsync(1))!.Run.Header.Machine,
                Assert.Single(await Shelves.Machines(databases).AllAsync()).Thing,
            }
        )
        {
            Assert.Equal("g", Assert.Single(machine.Graphics).Name);
            Assert.Empty(machine.MediaEngines);
            Assert.Equal(
                (500.0, 0.15, 4),
                (machine.Drives[0].ReadMegabytesPerSecond, machine.Drives[0].LatencyMilliseconds, machine.Drives[0].Roles.Count)
            );
        }
    }

    [Theory]
    [InlineData("{ not json")]
    [InlineData("null")]
    [InlineData("{}")]
    [InlineData("{\"timeline\":{\"id\":\"t\",\"title\":\"T\",\"passages\":[null]}}")]
    public async Task A_run_that_cannot_be_read_keeps_no_database_from_being_opened(string header)
    {
        var file = Path.Combine(folder, "damaged.db");
        var databases = new BenchDatabaseFactory(file);
        await using (var database = databases.CreateDbContext())
        {
            await database.GetService<IMigrator>().MigrateAsync(
                Earlier.Select(row => row.Data).TakeWhile(name => !name.EndsWith("_RunLines", StringComparison.Ordinal)).Last());
        }

        var run = new Dictionary<string, object?>(await NewRunAsync()) { ["HeaderJson"] = header };
        await InsertRunAsync(file, run);

        await databases.MigrateAsync(CancellationToken.None);

        await new RunJudging(databases, new RunWriter(databases)).RecomputeDigestsAsync();
        Assert.Single(await new RunList(databases).AllAsync());
        Assert.Single((await new RunList(databases).PageAsync(new RunQuery())).Runs);
    }

    [Fact]
    public async Task A_database_of_a_later_version_is_refused_and_left_as_it_is()
    {
        var file = Path.Combine(folder, "later.db");
        var databases = new BenchDatabaseFactory(file);
        await databases.MigrateAsync(CancellationToken.None);
        await NumberAsync(file, "INSERT INTO __EFMigrationsHistory VALUES ('29991231000000_Later', '99.0') RETURNING 1");
        SqliteConnection.ClearAllPools();

        await Assert.ThrowsAsync<NewerDataException>(() => databases.MigrateAsync(CancellationToken.None));

        Assert.Contains("29991231000000_Later", await AppliedAsync(file));
        Assert.Empty(Directory.GetFiles(folder, "*before*"));
    }

    [Fact]
    public async Task A_present_database_is_opened_without_a_copy()
    {
        var databases = new BenchDatabaseFactory(Path.Combine(folder, "now.db"));
        await databases.MigrateAsync(CancellationToken.None);
        await databases.MigrateAsync(CancellationToken.None);

        Assert.Empty(Directory.GetFiles(folder, "*before*"));
    }

    /// <summary>A run's row as it is written now; earlier tables take the columns that they have.</summary>
    private async Task<IReadOnlyDictionary<string, object?>> NewRunAsync()
    {
        var file = Path.Combine(folder, "new.db");
        var databases = new BenchDatabaseFactory(file);
        await databases.MigrateAsync(CancellationToken.None);
        var rate = new FrameRate(25);
        var timeline = new Timeline("t", "T", Raster.Hd, rate, [new Passage("asked", 50, [new Layer("c", [])], [])]);
        var machine = new Machine(
            "m",
            "M",
            MachineKind.StandIn,
            "",
            new Processor("p", 2, 2, 1, 3),
            [],
            [],
            new Memory(8, 1, 1, 3200),
            [],
            null,
            5
        );
        var header = new RunHeader(
            timeline,
            machine,
            new PlaybackSettings(),
            new Conditions("p", null, [0], null, null, 1),
            new Dictionary<string, string>(),
            DateTimeOffset.UnixEpoch
        );
        var writer = new RunWriter(databases);
        var id = await writer.BeginAsync(header);
        await writer.FinishAsync(id, new Run(
            header, RunEnding.Finished, TimeSpan.Zero,
            [
                .. Enumerable
                    .Range(0, 50)
                    .Select(n => new FrameRecord(
                        n,
                        rate.StartOf(n),
                        rate.StartOf(n),
                        rate.StartOf(n),
                        FrameStatus.OnTime,
                        DropReason.None,
                        default,
                        default,
                        default,
                        default,
                        2
                    )),
            ],
            [],
            []
        )
        );
        await using var connection = new SqliteConnection($"Data Source={file};Pooling=False");
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = "SELECT * FROM Runs";
        await using var reader = await command.ExecuteReaderAsync();
        Assert.True(await reader.ReadAsync());
        return Enumerable
            .Range(0, reader.FieldCount)
            .ToDictionary(reader.GetName, column => reader.IsDBNull(column) ? null : reader.GetValue(column));
    }

    private static async Task InsertRunAsync(string file, IReadOnlyDictionary<string, object?> run)
    {
        await using var connection = new SqliteConnection($"Data Source={file};Pooling=False");
        await connection.OpenAsync();
        var columns = new List<string>();
        await using (var ask = connection.CreateCommand())
        {
            ask.CommandText = "SELECT name FROM pragma_table_info('Runs')";
            await using var reader = await ask.ExecuteReaderAsync();
            while (await reader.ReadAsync())
            {
                columns.Add(reader.GetString(0));
            }
        }

        await using var insert = connection.CreateCommand();
        insert.CommandText =
            $"INSERT INTO Runs ({string.Join(',', columns)}) VALUES ({string.Join(',', columns.Select(column => "$" + column))})";
        columns.ForEach(column => insert.Parameters.AddWithValue("$" + column, run.GetValueOrDefault(column) ?? DBNull.Value));
        await insert.ExecuteNonQueryAsync();
    }

    private static async Task<IReadOnlyList<string>> AppliedAsync(string file)
    {
        await using var database = new BenchDatabaseFactory(file).CreateDbContext();
        return [.. await database.Database.GetAppliedMigrationsAsync()];
    }

    private static async Task<long> NumberAsync(string file, string sql)
    {
        await using var connection = new SqliteConnection($"Data Source={file};Pooling=False");
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = sql;
        return (long)(await command.ExecuteScalarAsync())!;
    }
}
