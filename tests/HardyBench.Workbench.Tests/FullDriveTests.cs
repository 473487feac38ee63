using System.Data.Common;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Store;
using HardyBench.Workbench.Data;
using HardyBench.Workbench.Plays;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace HardyBench.Workbench.Tests;

/// <summary>A drive that fills up while a run plays. The database itself is told that it may not grow, so that the refusal is a real
/// one.</summary>
public sealed class FullDriveTests : IAsyncLifetime
{
    private static readonly FrameRate Rate = new(25);
    private readonly SmallDrive drive = new();
    private readonly LyingCommits commits = new();
    private static readonly CancellationToken Stopped = new(canceled: true);
    private readonly StorageWait storage = new(TimeProvider.System);
    private RunReader runs = null!;
    private RunWriter writer = null!;
    private RunRecorder keeper = null!;

    public async ValueTask InitializeAsync()
    {
        var databases = new BenchDatabaseFactory(Path.Combine(TestData.NewFolder("full"), "bench.db"), drive, commits);
        await databases.MigrateAsync(CancellationToken.None);
        (runs, writer) = (new RunReader(databases), new RunWriter(databases));
        keeper = new RunRecorder(writer, storage, null, null);
        keeper.Started(Header());
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task A_run_whose_drive_is_full_keeps_what_it_had_and_says_so()
    {
        keeper.Progressed(Second(0));
        await KeptAsync(25);
        drive.IsFull = true;
        keeper.Progressed(Second(1));
        keeper.Progressed(Second(2));

        var failure = await Assert.ThrowsAsync<RunNotSavedException>(() => keeper.FinishAsync(Whole(3), Stopped));

        Assert.Matches(
            "^Run 1 was played but could not be saved completely: .*full.* 25 of its 75 slots are saved. Make room on the drive",
            failure.Message
        );
        Assert.Equal(25, (await runs.FindAsync(1))!.Run.Frames.Count);
    }

    /// <summary>The clock stands still, so whatever waited for its second to be over would wait for good.</summary>
    [Fact]
    public async Task An_ended_run_is_kept_at_once()
    {
        var hasty = new RunRecorder(writer, storage, null, null, new StillTime());
        hasty.Started(Header());
        hasty.Progressed(Second(0));
        hasty.Progressed(Second(1));

        var stored = await hasty.FinishAsync(Whole(2), TestContext.Current.CancellationToken).WaitAsync(TimeSpan.FromMinutes(10));

        Assert.Equal((RunEnding.Finished, 50), ((await runs.FindAsync(stored.Id))!.Run.Ending, stored.Run.Frames.Count));
    }

    [Fact]
    public async Task A_commit_that_came_through_and_was_told_as_failed_loses_nothing()
    {
        keeper.Progressed(Second(0));
        await KeptAsync(25);
        commits.AreDenied = true;

        var stored = await keeper.FinishAsync(Whole(1), CancellationToken.None);

        commits.AreDenied = false;
        Assert.Equal((RunEnding.Finished, 25), ((await runs.FindAsync(stored.Id))!.Run.Ending, stored.Run.Frames.Count));
    }

    [Fact]
    public async Task A_run_that_could_not_be_ended_is_made_whole_when_there_is_room_again()
    {
        keeper.Progressed(Second(0));
        await KeptAsync(25);
        drive.IsFull = true;
        keeper.Progressed(Second(1));
        await Assert.ThrowsAsync<RunNotSavedException>(() => keeper.FinishAsync(Whole(2), Stopped));

        drive.IsFull = false;
        await writer.CutShortAsync(1);

        var found = (await runs.FindAsync(1))!.Run;
        Assert.Equal((RunEnding.CutShort, 25), (found.Ending, found.Frames.Count));
    }

    [Fact]
    public async Task A_finished_run_waits_in_memory_until_there_is_room_and_is_then_saved_whole()
    {
        keeper.Progressed(Second(0));
        await KeptAsync(25);
        drive.IsFull = true;
        keeper.Progressed(Second(1));
        var finishing = keeper.FinishAsync(Whole(2), CancellationToken.None);
        for (var i = 0; i < 200 && storage.Problem is null; i++)
        {
            await Task.Delay(50);
        }

        var problem = storage.Problem;
        Assert.False(finishing.IsCompleted);
        drive.IsFull = false;
        await finishing;

        Assert.Contains("full", problem, StringComparison.Ordinal);
        Assert.Null(storage.Problem);
        var found = (await runs.FindAsync(1))!.Run;
        Assert.Equal((RunEnding.Finished, 50), (found.Ending, found.Frames.Count));
    }

    [Fact]
    public async Task When_room_is_made_while_it_plays_nothing_is_lost()
    {
        drive.IsFull = true;
        keeper.Progressed(Second(0));
        await Task.Delay(1500);
        drive.IsFull = false;
        keeper.Progressed(Second(1));
        await KeptAsync(50);

        await keeper.FinishAsync(Whole(2), CancellationToken.None);

        Assert.Equal(50, (await runs.FindAsync(1))!.Run.Frames.Count);
    }

    private async Task KeptAsync(int slots)
    {
        for (var i = 0; i < 200 && (await runs.FindAsync(1))!.Run.Frames.Count < slots; i++)
        {
            await Task.Delay(50);
        }

        Assert.Equal(slots, (await runs.FindAsync(1))!.Run.Frames.Count);
    }

    private static RunHeader Header()
    {
        var timeline = new Timeline("t", "T", Raster.Hd, Rate, [new Passage("asked", 1000, [new Layer("c", [])], [])]);
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
        return new RunHeader(
            timeline,
            machine,
            new PlaybackSettings(),
            new Conditions("p", null, [0], null, null, 1),
            new Dictionary<string, string>(),
            default
        );
    }

    /// <summary>Loads of many kinds, so that it takes pages.</summary>
    private static RunProgress Second(int number) => new(
        Slots(number * 25, 25),
        [
            .. Enumerable
                .Range(0, 4000)
                .Select(i => new LoadReading(TimeSpan.FromTicks(number * 10_000_000L + i * 977), LoadKind.Core, i, i * 0.37f)),
        ],
        []);

    private static Run Whole(int seconds) => new(
        Header(),
        RunEnding.Finished,
        TimeSpan.Zero,
        Slots(0, 25 * seconds),
        [.. Enumerable.Range(0, seconds).SelectMany(n => Second(n).Loads)],
        []
    );

    private static List<FrameRecord> Slots(int from, int count) =>
    [
        .. Enumerable.Range(from, count).Select(n => new FrameRecord(
            n,
            Rate.StartOf(n),
            Rate.StartOf(n),
            Rate.StartOf(n),
            FrameStatus.OnTime,
            DropReason.None,
            default,
            default,
            default,
            default,
            2
        )),
    ];

    /// <summary>Commits that come through and are told as failed.</summary>
    private sealed class LyingCommits : DbTransactionInterceptor
    {
        public bool AreDenied { get; set; }

        public override Task TransactionCommittedAsync(
            DbTransaction transaction,
            TransactionEndEventData eventData,
            CancellationToken cancellationToken = default
        )
        {
            if (AreDenied)
            {
                AreDenied = false;
                throw new IOException("The drive did not answer.");
            }

            return Task.CompletedTask;
        }
    }

    /// <summary>No timer ever goes off.</summary>
    private sealed class StillTime : TimeProvider
    {
        public override ITimer CreateTimer(TimerCallback callback, object? state, TimeSpan dueTime, TimeSpan period) =>
            new Timer(_ => { }, null, Timeout.Infinite, Timeout.Infinite);
    }

    /// <summary>Lets the file grow no further while the drive is full.</summary>
    private sealed class SmallDrive : DbConnectionInterceptor
    {
        private const long NoLimit = 1_000_000_000;

        public bool IsFull { get; set; }

        public override void ConnectionOpened(DbConnection connection, ConnectionEndEventData eventData) => Limit(connection);

        public override Task ConnectionOpenedAsync(
            DbConnection connection,
            ConnectionEndEventData eventData,
            CancellationToken cancellationToken = default
        )
        {
            Limit(connection);
            return Task.CompletedTask;
        }

        private void Limit(DbConnection connection)
        {
            using var command = connection.CreateCommand();
            command.CommandText = FormattableString.Invariant($"PRAGMA max_page_count={(IsFull ? 1 : NoLimit)}");
            command.ExecuteNonQuery();
        }
    }
}
