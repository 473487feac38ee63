using System.Text.Json;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Trials;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Formats.Json;
using HardyBench.Store.Entities;
using Microsoft.EntityFrameworkCore;

namespace HardyBench.Store;

/// <summary>A trial as it was asked for.</summary>
/// <param name="Timeline">As it was then.</param>
public sealed record AskedTrial(Trial Trial, Timeline Timeline, string MachineId, PlaybackSettings Settings)
{
    /// <summary>Whether a stand-in's runs come at the pace of the clock.</summary>
    public bool AtClock { get; init; }
}

/// <summary>A kept trial.</summary>
/// <param name="Problem">Why it could not go on, or null.</param>
/// <param name="Answer">The answer in one sentence; null before its first run has ended.</param>
public sealed record StoredTrial(long Id, AskedTrial Asked, TrialState State, DateTime AskedAtUtc, string? Problem, string? Answer);

/// <summary>Keeps trials. Their runs are kept by <see cref="RunWriter"/>.</summary>
public sealed class TrialStore(BenchDatabaseFactory databases)
{
    public async Task<StoredTrial> AddAsync(AskedTrial asked, DateTimeOffset now)
    {
        await using var database = databases.CreateDbContext();
        var entity = new TrialEntity
        {
            Kind = asked.Trial.Kind, TimelineId = asked.Timeline.Id, MachineId = asked.MachineId, State = TrialState.Waiting,
            AskedAtUtc = now.UtcDateTime, Json = JsonSerializer.Serialize(asked, BenchJson.Options),
        };
        database.Add(entity);
        await database.SaveChangesAsync();
        return Stored(entity)!;
    }

    public async Task ChangeAsync(long id, TrialState state, string? problem = null)
    {
        await using var database = databases.CreateDbContext();
        await database.Trials.Where(trial => trial.Id == id)
            .ExecuteUpdateAsync(change => change
                .SetProperty(trial => trial.State, state)
                .SetProperty(trial => trial.Problem, problem)
                .SetProperty(trial => trial.Owner, state == TrialState.Playing ? RunOwner.Current : null));
    }

    /// <summary>Takes a waiting trial for this program, in one step: of two who try, one gets it.</summary>
    public async Task<bool> ClaimAsync(long id)
    {
        await using var database = databases.CreateDbContext();
        return await database.Trials.Where(trial => trial.Id == id && trial.State == TrialState.Waiting)
            .ExecuteUpdateAsync(change => change
                .SetProperty(trial => trial.State, TrialState.Playing)
                .SetProperty(trial => trial.Owner, RunOwner.Current)) == 1;
    }

    /// <summary>Closes a trial that waits or that this program plays.</summary>
    public async Task FailAsync(long id, string problem)
    {
        await using var database = databases.CreateDbContext();
        await database
            .Trials.Where(trial =>
                trial.Id == id
                && (trial.State == TrialState.Waiting || (trial.State == TrialState.Playing && trial.Owner == RunOwner.Current))
            )
            .ExecuteUpdateAsync(change => change
                .SetProperty(trial => trial.State, TrialState.Failed)
                .SetProperty(trial => trial.Problem, problem)
                .SetProperty(trial => trial.Owner, (string?)null));
    }

    /// <summary>Keeps the answer as far as it is known.</summary>
    public async Task AnswerAsync(long id, string answer)
    {
        await using var database = databases.CreateDbContext();
        await database
            .Trials.Where(trial => trial.Id == id)
            .ExecuteUpdateAsync(change => change.SetProperty(trial => trial.Answer, answer));
    }

    /// <summary>Closes trials whose program ended under them. Those of another living program are left alone, and those that
    /// wait still wait.</summary>
    public async Task RecoverAsync(string problem)
    {
        await using var database = databases.CreateDbContext();
        var playing = await database.Trials.AsNoTracking().Where(trial => trial.State == TrialState.Playing).ToListAsync();
        foreach (var trial in playing.Where(trial => !RunOwner.IsAlive(trial.Owner ?? string.Empty)))
        {
            await ChangeAsync(trial.Id, TrialState.Failed, problem);
        }

        foreach (var trial in await database.Trials.AsNoTracking().Where(trial => trial.State == TrialState.Waiting).ToListAsync())
        {
            if (Asked(trial) is null)
            {
                await ChangeAsync(trial.Id, TrialState.Failed, "Its request cannot be read, so it cannot be played.");
            }
        }
    }

    /// <summary>Room that a probe writes, in bytes: about what a run takes.</summary>
    private const int ProbeBytes = 1 << 20;

    /// <summary>Writes as much as a run takes and deletes it again, so that a drive without room is noticed before a run begins.</summary>
    public async Task ProbeAsync()
    {
        const string Kind = "probe";
        var room = new string(' ', ProbeBytes);
        await using var database = databases.CreateDbContext();
        await database.Database.ExecuteSqlAsync(
            $"INSERT OR REPLACE INTO Documents (Kind, Id, \"Order\", Version, Json) VALUES ({Kind}, {Kind}, 0, 0, {room})");
        await database.Documents.Where(document => document.Kind == Kind).ExecuteDeleteAsync();
    }

    /// <summary>A trial by its number, or null.</summary>
    /// <exception cref="InvalidDataException">It is stored but cannot be read.</exception>
    public async Task<StoredTrial?> FindAsync(long id)
    {
        await using var database = databases.CreateDbContext();
        return await database.Trials.AsNoTracking().SingleOrDefaultAsync(trial => trial.Id == id) is { } entity
            ? Stored(entity) ?? throw new InvalidDataException($"Trial {id} is stored but cannot be read; its runs can be.")
            : null;
    }

    /// <summary>All trials that can be read, newest first.</summary>
    public async Task<IReadOnlyList<StoredTrial>> ListAsync()
    {
        await using var database = databases.CreateDbContext();
        return
        [
            .. (await database.Trials.AsNoTracking().OrderByDescending(trial => trial.Id).ToListAsync())
                .Select(Stored)
                .OfType<StoredTrial>(),
        ];
    }

    private static StoredTrial? Stored(TrialEntity entity) =>
        Asked(entity) is { } asked ? new(entity.Id, asked, entity.State, entity.AskedAtUtc, entity.Problem, entity.Answer) : null;

    private static AskedTrial? Asked(TrialEntity entity)
    {
        try
        {
            return
                FormerShapes.OfTrial(entity.Json).Deserialize<AskedTrial>(BenchJson.Options)
                    is { Trial: not null, MachineId: not null, Settings: not null } asked
                && !TimelineLimits.Problems(asked.Timeline).Any() ? asked : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
