using System.Text.Json;
using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.Timelines;
using HardyBench.Core.Trials;
using HardyBench.Core.Wording;
using HardyBench.Formats.Json;
using HardyBench.Formats.Runs;
using HardyBench.Formats.Timelines;
using HardyBench.Store.Entities;
using Microsoft.EntityFrameworkCore;

namespace HardyBench.Store;

/// <summary>A run, its number and what people noted.</summary>
public sealed record StoredRun(long Id, Run Run)
{
    public IReadOnlyList<RunMark> Marks { get; init; } = [];

    /// <summary>The trial it belongs to and what it stands for in it, or null.</summary>
    public RunPlace? Place { get; init; }

    /// <summary>Why it does not count for its machine, and what to do, in words; null where it counts, and until it has ended.</summary>
    public string? NotCounting { get; init; }

    /// <summary>What to know before trusting it, a phrase each; empty until it has ended.</summary>
    public IReadOnlyList<string> Notes { get; init; } = [];
}

/// <summary>A run and what was found of it.</summary>
/// <param name="Notes">What to know before trusting it, a phrase each.</param>
/// <param name="Passages">One a passage, in order.</param>
public sealed record JudgedRun(
    long Id, RunEnding Ending, DateTimeOffset StartedAt, TimeSpan? StartLag, PreviewScale Scale, IReadOnlyList<string> Notes,
    IReadOnlyList<PassageSummary> Passages)
{
    /// <summary>Why it does not count for its machine, and what to do, in words; null where it counts.</summary>
    public string? NotCounting { get; init; }

    /// <summary>Whether its figures are wrong for that reason.</summary>
    public bool Disturbed { get; init; }
}

/// <summary>What a run was played under.</summary>
/// <param name="TimelineDigest">Of the timeline as it was played.</param>
/// <param name="ConditionsDigest">Alike for runs that are repeats of each other.</param>
public sealed record RunConditions(long Id, RunHeader Header, RunEnding Ending, string TimelineDigest, string ConditionsDigest);

/// <summary>Runs of a machine as it was once.</summary>
/// <param name="Machine">As it was described then.</param>
/// <param name="Runs">How many there are.</param>
/// <param name="Last">When the last of them started.</param>
public sealed record EarlierRuns(Machine Machine, int Runs, DateTimeOffset Last);

/// <summary>A run that is stored and damaged.</summary>
/// <param name="Why">A sentence for the person.</param>
public sealed record UnreadableRun(long Id, string Why);

/// <summary>A run's place in a trial.</summary>
public sealed record RunPlace(long TrialId, StepRole Role);

/// <summary>A run as a line of a list.</summary>
/// <param name="ConditionsDigest">Alike for runs that are repeats of each other.</param>
/// <param name="Differences">What differed from a bare run, a phrase each.</param>
/// <param name="NotCounting">Why it does not count for its machine, and what to do, in words; null where it counts.</param>
public sealed record RunLine(
    long Id, string TimelineId, string TimelineDigest, string MachineId, PreviewScale Scale, PlayingPolicy Policy, bool Pictures,
    DateTime StartedAtUtc, RunEnding Ending, bool ByHand, string ConditionsDigest, string Differences,
    long? TrialId, string? Label, int Marks, bool Deleted, string? NotCounting, IReadOnlyList<PassageLine> Passages)
{
    /// <summary>The timeline's title when it was played.</summary>
    public required string TimelineTitle { get; init; }

    /// <summary>The machine's name when it played.</summary>
    public required string MachineName { get; init; }
}

/// <summary>A passage of such a line.</summary>
public sealed record PassageLine(int Index, int Slots, int Shown, int SteadyDrops, Verdict? Verdict, Limiter? Limiter);

/// <summary>Keeps runs. A run in play is kept in pieces, one a second; when it ends they become one.</summary>
public sealed class RunStore(BenchDatabaseFactory databases)
{
    /// <summary>Between the phrases of <see cref="RunLine.Differences"/>.</summary>
    public const string DifferenceMark = "; ";

    /// <summary>Earlier descriptions of a machine that are listed.</summary>
    private const int MaxEarlier = 5;

    /// <summary>Notes that a run has started.</summary>
    /// <param name="place">Its place in a trial, or null.</param>
    /// <returns>Its number.</returns>
    public async Task<long> BeginAsync(RunHeader header, RunPlace? place = null)
    {
        await using var database = databases.CreateDbContext();
        var run = Begun(header, place);
        database.Add(run);
        await database.SaveChangesAsync();
        return run.Id;
    }

    /// <summary>Keeps a run that is whole already.</summary>
    /// <returns>Its number.</returns>
    public async Task<long> AddAsync(Run run, RunPlace? place = null)
    {
        var entity = Begun(run.Header, place);
        End(entity, run, await RunColumns.WriteAsync(run.Frames, run.Loads));
        await using var database = databases.CreateDbContext();
        database.Add(entity);
        await database.SaveChangesAsync();
        return entity.Id;
    }

    private static RunEntity Begun(RunHeader header, RunPlace? place) => new()
    {
        TimelineId = header.Timeline.Id,
        TimelineDigest = TimelineJson.Digest(header.Timeline),
        MachineId = header.Machine.Id,
        MachineDigest = Formats.Machines.MachineDigest.Of(header.Machine),
        Scale = header.Settings.Scale,
        Policy = header.Settings.Policy,
        Pictures = header.Settings.Pictures,
        StartedAtUtc = header.StartedAt.UtcDateTime,
        Ending = RunEnding.Playing,
        Owner = RunOwner.Current,
        HeaderJson = JsonSerializer.Serialize(header, BenchJson.Options),
        TrialId = place?.TrialId,
        Label = place?.Role.Label,
        Passage = place?.Role.Passage,
        Side = place?.Role.Side,
        ByHand = header.IsByHand,
        Bare = header.Settings.IsBare,
        ConditionsDigest = Formats.Runs.ConditionsDigest.Of(header),
        Differences = string.Join(DifferenceMark, header.Differences()),
        LagsJson = "[]",
        FailuresJson = "[]",
        Line = LineOf(header, place),
    };

    private static RunLineEntity LineOf(RunHeader header, RunPlace? place) => new()
    {
        Timeline = header.Timeline.Title,
        Machine = header.Machine.Name,
        Words = WordsOf(header, RunEnding.Playing, place),
        Scale = header.Settings.Scale,
        Ending = RunEnding.Playing,
    };

    /// <summary>What a run is found by.</summary>
    private static string WordsOf(RunHeader header, RunEnding ending, RunPlace? place) => string.Join(
        ' ',
        [
            header.Timeline.Title, header.Machine.Name, header.Settings.Scale.ToString(), .. header.Differences(),
            header.Settings.IsBare ? "bare" : string.Empty,
            header.IsByHand ? "by hand" : string.Empty,
            ending switch
            {
                RunEnding.CutShort => "interrupted, cut-short",
                RunEnding.Stopped => "stopped early",
                _ => ending.ToString(),
            },
            $"{header.StartedAt.UtcDateTime:yyyy-MM-dd}",
            place is null ? string.Empty : $"trial {place.TrialId} {place.Role.Label}",
        ]).ToLowerInvariant();

    /// <summary>Keeps what a run in play has brought since the last call. A piece that was reported as not kept and is there anyway is
    /// replaced by the one that now holds it and more.</summary>
    public async Task AppendAsync(long id, int sequence, RunProgress news)
    {
        var rows = RunPiece.Write(news);
        await using var database = databases.CreateDbContext();
        await using var step = await database.Database.BeginTransactionAsync();
        await database.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO RunPieces (RunId, Sequence, Columns) VALUES ({id}, {sequence}, {rows})
            ON CONFLICT (RunId, Sequence) DO UPDATE SET Columns = excluded.Columns
            """
        );
        if (news.Failures.Count + news.Lags.Count > 0)
        {
            var run = await database.Runs.SingleAsync(run => run.Id == id);
            run.FailuresJson = JsonSerializer.Serialize(Failures(run).Union(news.Failures), BenchJson.Options);
            run.LagsJson = JsonSerializer.Serialize(Lags(run).Union(news.Lags), BenchJson.Options);
            await database.SaveChangesAsync();
        }

        await step.CommitAsync();
    }

    /// <summary>Whether an ended run is kept as a whole.</summary>
    public async Task<bool> IsWholeAsync(long id)
    {
        await using var database = databases.CreateDbContext();
        return await database.Runs.AnyAsync(run => run.Id == id && run.Ending != RunEnding.Playing && run.Columns != null);
    }

    /// <summary>Removes what was deleted longer ago than it can be restored.</summary>
    /// <returns>How many runs that were.</returns>
    public async Task<int> RemoveExpiredAsync(DateTimeOffset now)
    {
        await using var database = databases.CreateDbContext();
        await using var step = await database.Database.BeginTransactionAsync();
        var before = (now - DeletedStore.RestorableFor).UtcDateTime;
        var gone = database.Runs.Where(run => run.DeletedAtUtc != null && run.DeletedAtUtc < before);
        var ids = gone.Select(run => run.Id);
        await database.RunPieces.Where(piece => ids.Contains(piece.RunId)).ExecuteDeleteAsync();
        await database.Marks.Where(mark => ids.Contains(mark.RunId)).ExecuteDeleteAsync();
        await database.Set<PassageEntity>().Where(passage => ids.Contains(passage.RunId)).ExecuteDeleteAsync();
        await database.Set<RunLineEntity>().Where(line => ids.Contains(line.RunId)).ExecuteDeleteAsync();
        var count = await gone.ExecuteDeleteAsync();
        await step.CommitAsync();
        return count;
    }

    /// <summary>Keeps an ended run as a whole and lets its pieces go, in one step.</summary>
    public async Task FinishAsync(long id, Run run)
    {
        var columns = await RunColumns.WriteAsync(run.Frames, run.Loads);
        await using var database = databases.CreateDbContext();
        await using var step = await database.Database.BeginTransactionAsync();
        var entity = await database.Runs.Include(entity => entity.Line).SingleAsync(entity => entity.Id == id);
        End(entity, run, columns);
        await database.SaveChangesAsync();
        await database.RunPieces.Where(piece => piece.RunId == id).ExecuteDeleteAsync();
        await step.CommitAsync();
    }

    /// <summary>Ended runs that were judged by earlier rules, or by none; the newest first.</summary>
    public async Task<IReadOnlyList<long>> ToJudgeAsync()
    {
        await using var database = databases.CreateDbContext();
        return await database
            .Runs.Where(run => run.Rules != RunSummary.Rules && run.Ending != RunEnding.Playing && run.Ending != RunEnding.Unreadable)
            .OrderByDescending(run => run.Id).Select(run => run.Id).ToListAsync();
    }

    /// <summary>Judges a run again. One that cannot be read is marked so; one that was removed meanwhile is passed over.</summary>
    /// <returns>Why it cannot be read; null where it can.</returns>
    public async Task<UnreadableRun?> JudgeAgainAsync(long id)
    {
        await using var database = databases.CreateDbContext();
        var entity = await database.Runs.Include(run => run.Passages).Include(run => run.Line).SingleOrDefaultAsync(run => run.Id == id);
        if (entity is null)
        {
            return null;
        }

        try
        {
            var run = await WholeAsync(database, entity);
            var summary = RunSummary.Of(run);
            await using var step = await database.Database.BeginTransactionAsync();
            database.RemoveRange(entity.Passages);
            await database.SaveChangesAsync();
            entity.Passages.Clear();
            Keep(entity, run, summary);
            await database.SaveChangesAsync();
            await step.CommitAsync();
            return null;
        }
        catch (InvalidDataException damage)
        {
            return await MarkUnreadableAsync(id, damage.Message);
        }
        catch (Exception damage)
            when (damage is ArgumentException or ArithmeticException or (InvalidOperationException and not ObjectDisposedException))
        {
            // It can be read, but not as a run of its timeline; one such run must not keep the others from being judged.
            return await MarkUnreadableAsync(id, $"Run {id} is stored but cannot be judged: {damage.Message} It was not changed.");
        }
    }

    private static void End(RunEntity entity, Run run, byte[] columns)
    {
        entity.Ending = run.Ending;
        entity.StartLagTicks = run.StartLag is { } lag ? RunColumns.Rounded(lag).Ticks : null;
        entity.FailuresJson = JsonSerializer.Serialize(run.Failures, BenchJson.Options);
        entity.LagsJson = JsonSerializer.Serialize(run.Lags, BenchJson.Options);
        entity.Columns = columns;
        Keep(entity, run, RunSummary.Of(run));
    }

    /// <summary>Puts what was found beside the run.</summary>
    private static void Keep(RunEntity entity, Run run, RunSummary summary)
    {
        entity.Rules = RunSummary.Rules;
        entity.NotesJson = JsonSerializer.Serialize(RunWords.NotesOf(run), BenchJson.Options);
        var (passages, disturbance) = summary;
        (entity.NotCounting, entity.Disturbed) = (
            disturbance is null ? null : AdviceWords.NotCounting(disturbance), disturbance?.AffectsFigures == true);
        var line = entity.Line ??= LineOf(run.Header, PlaceOf(entity));
        (line.Timeline, line.Machine, line.Ending) = (run.Header.Timeline.Title, run.Header.Machine.Name, run.Ending);
        line.Words = WordsOf(run.Header, run.Ending, PlaceOf(entity));
        (line.Holds, line.Wavers, line.Breaks) = (Count(Verdict.Holds), Count(Verdict.Wavers), Count(Verdict.Breaks));
        (line.Slots, line.Shown) = (passages.Sum(passage => passage.Slots), passages.Sum(passage => passage.Shown));
        entity.Passages.AddRange(passages.Select(passage => new PassageEntity
        {
            RunId = entity.Id,
            Index = passage.Index,
            Slots = passage.Slots,
            Shown = passage.Shown,
            ShownRate = passage.ShownRate,
            StartUpDrops = passage.StartUpDrops,
            SteadyDrops = passage.SteadyDrops,
            LongestFreezeTicks = passage.LongestFreeze.Ticks,
            Headroom = passage.Headroom,
            Failure = passage.Failure,
            Teeth = passage.Teeth,
            Verdict = passage.Verdict,
            Limiter = passage.Limiter,
            SecondLimiter = passage.Second,
            DecodedOn = string.Join('\n', passage.DecodedOn),
        }));

        int Count(Verdict verdict) => passages.Count(passage => passage.Verdict == verdict);
    }

    /// <summary>What an ended run has shown, without its frames and loads; null where there is no such run.</summary>
    public async Task<JudgedRun?> JudgedAsync(long id)
    {
        await using var database = databases.CreateDbContext();
        var run = await database.Runs.AsNoTracking().Where(run => run.Id == id).Select(run => new
        {
            run.Id,
            run.Ending,
            run.StartedAtUtc,
            run.StartLagTicks,
            run.Scale,
            run.NotesJson,
            run.NotCounting,
            run.Disturbed,
            Passages = run.Passages.OrderBy(passage => passage.Index).ToList(),
        }).SingleOrDefaultAsync();
        return run is null ? null : new JudgedRun(
            run.Id,
            run.Ending,
            new DateTimeOffset(run.StartedAtUtc, TimeSpan.Zero),
            run.StartLagTicks is { } lag ? new TimeSpan(lag) : null,
            run.Scale,
            NotesOf(run.NotesJson),
            [.. run.Passages.Select(passage => new PassageSummary(
                passage.Index,
                passage.Verdict,
                passage.Limiter,
                passage.SecondLimiter,
                passage.Headroom,
                passage.Slots,
                passage.Shown,
                passage.ShownRate,
                passage.StartUpDrops, passage.SteadyDrops, new TimeSpan(passage.LongestFreezeTicks), passage.Failure, passage.Teeth,
                passage.DecodedOn.Split('\n', StringSplitOptions.RemoveEmptyEntries)))])
        {
            NotCounting = run.NotCounting, Disturbed = run.Disturbed,
        };
    }

    private static List<string> NotesOf(string json)
    {
        try
        {
            return ListOf<string>(json);
        }
        catch (Exception damage) when (damage is JsonException or InvalidDataException)
        {
            return ["its notes cannot be read"];
        }
    }

    /// <summary>Makes whole what programs that ended in mid-run left behind. Runs that another living program is
    /// playing are left alone.</summary>
    /// <returns>The numbers of the runs that were interrupted, and those among them that are damaged.</returns>
    public async Task<(IReadOnlyList<long> Interrupted, IReadOnlyList<UnreadableRun> Unreadable)> RecoverAsync()
    {
        await using var database = databases.CreateDbContext();
        var playing = await database.Runs.AsNoTracking().Where(run => run.Ending == RunEnding.Playing)
            .Select(run => new { run.Id, run.Owner }).ToListAsync();
        var cut = playing.Where(run => !RunOwner.IsAlive(run.Owner)).Select(run => run.Id).ToList();
        var (whole, unreadable) = (new List<long>(), new List<UnreadableRun>());
        foreach (var id in cut)
        {
            try
            {
                await CutShortAsync(id);
                whole.Add(id);
            }
            catch (InvalidDataException damage)
            {
                unreadable.Add(await MarkUnreadableAsync(id, damage.Message));
            }
        }

        return (whole, unreadable);
    }

    /// <summary>Notes that a run is damaged. Nothing of it is changed but its ending, so that it counts nowhere.</summary>
    private async Task<UnreadableRun> MarkUnreadableAsync(long id, string why)
    {
        await using var database = databases.CreateDbContext();
        await using var step = await database.Database.BeginTransactionAsync();
        var notes = JsonSerializer.Serialize((string[])[why], BenchJson.Options);
        await database.Runs.Where(run => run.Id == id).ExecuteUpdateAsync(set =>
            set.SetProperty(run => run.Ending, RunEnding.Unreadable).SetProperty(run => run.NotesJson, notes));
        await database.Set<RunLineEntity>().Where(line => line.RunId == id)
            .ExecuteUpdateAsync(set => set.SetProperty(line => line.Ending, RunEnding.Unreadable));
        await step.CommitAsync();
        return new UnreadableRun(id, why);
    }

    /// <summary>Takes the digests of runs that have none, as after they were calculated otherwise. A run that cannot be read stays without,
    /// and so answers no timeline.</summary>
    public async Task RecomputeDigestsAsync()
    {
        await using var database = databases.CreateDbContext();
        var without = await database
            .Runs.AsNoTracking()
            .Where(run => run.TimelineDigest == string.Empty || run.MachineDigest == string.Empty)
            .Select(run => new { run.Id, run.HeaderJson }).ToListAsync();
        await using var whole = await database.Database.BeginTransactionAsync();
        foreach (var run in without)
        {
            if (WholeHeader(run.HeaderJson) is { } header)
            {
                var (timeline, conditions) = (TimelineJson.Digest(header.Timeline), Formats.Runs.ConditionsDigest.Of(header));
                var machine = Formats.Machines.MachineDigest.Of(header.Machine);
                await database
                    .Runs.Where(one => one.Id == run.Id)
                    .ExecuteUpdateAsync(set =>
                        set.SetProperty(one => one.TimelineDigest, timeline)
                            .SetProperty(one => one.MachineDigest, machine)
                            .SetProperty(one => one.ConditionsDigest, conditions)
                    );
            }
        }

        await whole.CommitAsync();
    }

    /// <returns>Null for one that is damaged, or lacks a part.</returns>
    private static RunHeader? WholeHeader(string json)
    {
        try
        {
            return
                HeaderOf(json) is { Machine.Id: not null, Settings: not null, Conditions.Player: not null, ClipChecksums: not null } header
                && !TimelineLimits.Problems(header.Timeline).Any() ? header : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    /// <summary>Ends a run in play where it stands: kept up to its last piece, and marked so.</summary>
    public async Task CutShortAsync(long id)
    {
        var run = (await FindAsync(id))!.Run;
        await FinishAsync(id, run with { Ending = RunEnding.CutShort });
    }

    /// <summary>A run by its number, in play or ended, or null.</summary>
    public async Task<StoredRun?> FindAsync(long id)
    {
        await using var database = databases.CreateDbContext();
        var run = await database.Runs.AsNoTracking().SingleOrDefaultAsync(run => run.Id == id);
        return run is null ? null : await StoredAsync(database, run);
    }

    /// <summary>The runs of a trial, in the order played, one read at a time; those deleted are left out.</summary>
    public async IAsyncEnumerable<StoredRun> OfTrialAsync(long trialId)
    {
        await using var database = databases.CreateDbContext();
        var ids = await database
            .Runs.Where(run => run.TrialId == trialId && run.DeletedAtUtc == null)
            .OrderBy(run => run.Id)
            .Select(run => run.Id)
            .ToListAsync();
        foreach (var id in ids)
        {
            if (await database.Runs.AsNoTracking().SingleOrDefaultAsync(run => run.Id == id) is { } run)
            {
                yield return await StoredAsync(database, run);
            }
        }
    }

    /// <summary>Deletes runs, or restores them.</summary>
    /// <returns>How many that were.</returns>
    public async Task<int> SetDeletedAsync(IReadOnlyList<long> ids, bool deleted, DateTimeOffset now)
    {
        await using var database = databases.CreateDbContext();
        await using var step = await database.Database.BeginTransactionAsync();
        DateTime? moment = deleted ? now.UtcDateTime : null;
        var count = await database.Runs.Where(run => ids.Contains(run.Id) && run.Ending != RunEnding.Playing)
            .ExecuteUpdateAsync(change => change.SetProperty(run => run.DeletedAtUtc, moment));
        await database.Set<RunLineEntity>().Where(line => ids.Contains(line.RunId) && line.Ending != RunEnding.Playing)
            .ExecuteUpdateAsync(change => change.SetProperty(line => line.Deleted, deleted));
        await step.CommitAsync();
        return count;
    }

    /// <summary>Those of some runs that are there and not deleted.</summary>
    public async Task<IReadOnlySet<long>> PresentAsync(IReadOnlyList<long> ids)
    {
        await using var database = databases.CreateDbContext();
        return await database.Runs.Where(run => ids.Contains(run.Id) && run.DeletedAtUtc == null).Select(run => run.Id).ToHashSetAsync();
    }

    /// <summary>Ended runs of a timeline, just as it is now, played through on a machine, just as it is described now, at a preview scale;
    /// newest first.</summary>
    public async Task<IReadOnlyList<RunOfColumn>> OfColumnAsync(string timelineDigest, Machine machine, PreviewScale scale)
    {
        await using var database = databases.CreateDbContext();
        var described = Formats.Machines.MachineDigest.Of(machine);
        var runs = await database.Runs.AsNoTracking()
            .Where(run =>
                run.TimelineDigest == timelineDigest
                && run.MachineId == machine.Id
                && run.MachineDigest == described
                && run.Scale == scale
                && run.Ending != RunEnding.Playing && !run.ByHand && run.DeletedAtUtc == null)
            .OrderByDescending(run => run.Id)
            .Select(run => new { run.Id, run.StartedAtUtc, run.Ending, run.Differences, run.NotCounting })
            .ToListAsync();
        var byScale = new PlaybackSettings(scale).Differences();
        return [.. runs.Select(run => new RunOfColumn(
            run.Id, new DateTimeOffset(run.StartedAtUtc, TimeSpan.Zero), run.Ending,
            [.. run.Differences.Split(DifferenceMark, StringSplitOptions.RemoveEmptyEntries).Except(byScale)], run.NotCounting))];
    }

    /// <summary>Runs that a machine played before it was changed, for each of its last descriptions; the newest first. They no
    /// longer count for the machine.</summary>
    public async Task<IReadOnlyList<EarlierRuns>> OfEarlierAsync(Machine machine)
    {
        await using var database = databases.CreateDbContext();
        var now = Formats.Machines.MachineDigest.Of(machine);
        var groups = await database.Runs.AsNoTracking()
            .Where(run => run.MachineId == machine.Id && run.MachineDigest != now && run.MachineDigest != string.Empty
                && run.DeletedAtUtc == null)
            .GroupBy(run => run.MachineDigest).Select(group => new { Count = group.Count(), Newest = group.Max(run => run.Id) })
            .OrderByDescending(group => group.Newest).Take(MaxEarlier).ToListAsync();
        var newest = groups.Select(group => group.Newest).ToList();
        var headers = await database.Runs.AsNoTracking().Where(run => newest.Contains(run.Id))
            .ToDictionaryAsync(run => run.Id, run => run.HeaderJson);
        return [.. groups.Select(group => (group.Count, Header: WholeHeader(headers[group.Newest])))
            .Where(group => group.Header is not null)
            .Select(group => new EarlierRuns(group.Header!.Machine, group.Count, group.Header.StartedAt))];
    }

    /// <summary>The newest complete bare run of a timeline, just as it is now, on a machine.</summary>
    public async Task<StoredRun?> NewestBareAsync(string timelineDigest, Machine machine)
    {
        var runs = await OfColumnAsync(timelineDigest, machine, PreviewScale.Full);
        return RunOfColumn.Shown(runs, []) is { } id ? await FindAsync(id) : null;
    }

    /// <summary>The newest complete bare run of a timeline, just as it is now, on each of several machines as they are described
    /// now.</summary>
    /// <param name="described">Each machine's digest, by its id.</param>
    /// <returns>By machine, then by passage; machines without such a run are left out.</returns>
    public async Task<IReadOnlyDictionary<string, IReadOnlyDictionary<int, GridCell>>> GridAsync(
        string timelineDigest,
        IReadOnlyDictionary<string, string> described
    )
    {
        await using var database = databases.CreateDbContext();
        var runs = await database.Runs.AsNoTracking()
            .Where(run =>
                run.TimelineDigest == timelineDigest
                && run.Bare
                && run.Ending == RunEnding.Finished
                && !run.ByHand
                && run.DeletedAtUtc == null
            )
            .OrderByDescending(run => run.NotCounting == null).ThenByDescending(run => run.Id)
            .Select(run => new { run.Id, run.MachineId, run.MachineDigest, run.NotCounting }).ToListAsync();
        var newest = runs.Where(run => described.GetValueOrDefault(run.MachineId) == run.MachineDigest).DistinctBy(run => run.MachineId)
            .ToDictionary(run => run.Id);
        var passages = await database
            .Set<PassageEntity>()
            .AsNoTracking()
            .Where(passage => newest.Keys.Contains(passage.RunId) && passage.Slots > 0)
            .OrderBy(passage => passage.RunId).ThenBy(passage => passage.Index)
            .Select(passage => new
            {
                passage.RunId,
                passage.Index,
                passage.Verdict,
                passage.Limiter,
                passage.Shown,
                passage.Slots,
                passage.Headroom,
            })
            .ToListAsync();
        return passages
            .GroupBy(passage => newest[passage.RunId].MachineId)
            .ToDictionary(
                group => group.Key,
                IReadOnlyDictionary<int, GridCell> (group) =>
                    group.ToDictionary(
            passage => passage.Index,
            passage =>
                GridCell.Of(
                    passage.RunId, passage.Verdict, passage.Limiter, passage.Shown, passage.Slots, passage.Headroom,
                    newest[passage.RunId].NotCounting)
                    )
            );
    }

    /// <summary>Finished runs of a timeline, just as it is now, that stand-ins as they are described now played as editing programs; newest
    /// first.</summary>
    /// <param name="described">Each machine's digest, by its id.</param>
    public async Task<IReadOnlyList<long>> ByProgramAsync(string timelineDigest, IReadOnlyDictionary<string, string> described, int most)
    {
        await using var database = databases.CreateDbContext();
        var runs = await database.Runs.AsNoTracking()
            .Where(run => run.TimelineDigest == timelineDigest && run.Differences.StartsWith(SettingWords.PlaysAs)
                && run.Ending == RunEnding.Finished && !run.ByHand && run.DeletedAtUtc == null)
            .OrderByDescending(run => run.Id).Take(most).Select(run => new { run.Id, run.MachineId, run.MachineDigest }).ToListAsync();
        return [.. runs.Where(run => described.GetValueOrDefault(run.MachineId) == run.MachineDigest).Select(run => run.Id)];
    }

    /// <summary>What a run was played under, without what it left; null where there is none such.</summary>
    public async Task<RunConditions?> ConditionsAsync(long id)
    {
        await using var database = databases.CreateDbContext();
        var run = await database.Runs.AsNoTracking().Where(run => run.Id == id && run.DeletedAtUtc == null)
            .Select(run => new { run.Id, run.Ending, run.TimelineDigest, run.ConditionsDigest, run.HeaderJson }).SingleOrDefaultAsync();
        return run is null
            ? null
            : new RunConditions(
                run.Id,
                WholeHeader(run.HeaderJson) ?? throw new InvalidDataException($"Run {id} is stored but cannot be read. It was not changed."),
                run.Ending, run.TimelineDigest, run.ConditionsDigest);
    }

    /// <summary>Finished runs under just these conditions whose figures are right, newest first.</summary>
    public async Task<IReadOnlyList<long>> RepeatsAsync(string conditionsDigest, int most)
    {
        await using var database = databases.CreateDbContext();
        return await database
            .Runs.Where(run => run.ConditionsDigest == conditionsDigest && run.Ending == RunEnding.Finished
                && run.DeletedAtUtc == null && !run.Disturbed)
            .OrderByDescending(run => run.Id).Select(run => run.Id).Take(most).ToListAsync();
    }

    /// <summary>Pins an observation to a run.</summary>
    /// <param name="mark">Its id is given here.</param>
    public async Task<RunMark> MarkAsync(long runId, RunMark mark)
    {
        await using var database = databases.CreateDbContext();
        var entity = new MarkEntity { RunId = runId, AtTicks = mark.At.Ticks, Frame = mark.Frame, Kind = mark.Kind, Text = mark.Text };
        database.Add(entity);
        await database.SaveChangesAsync();
        return mark with { Id = entity.Id };
    }

    /// <summary>Removes an observation; does nothing when there is none.</summary>
    public async Task UnmarkAsync(long runId, long markId)
    {
        await using var database = databases.CreateDbContext();
        await database.Marks.Where(mark => mark.Id == markId && mark.RunId == runId).ExecuteDeleteAsync();
    }

    private static RunHeader? HeaderOf(string json) => FormerShapes.OfHeader(json).Deserialize<RunHeader>(BenchJson.Options);

    private static async Task<StoredRun> StoredAsync(BenchDatabase database, RunEntity run) => new(run.Id, await WholeAsync(database, run))
    {
        Marks = await database.Marks.AsNoTracking().Where(mark => mark.RunId == run.Id).OrderBy(mark => mark.AtTicks)
            .Select(mark => new RunMark(mark.Id, new TimeSpan(mark.AtTicks), mark.Frame, mark.Kind, mark.Text)).ToListAsync(),
        Place = PlaceOf(run),
        NotCounting = run.NotCounting,
        Notes = NotesOf(run.NotesJson),
    };

    private static RunPlace? PlaceOf(RunEntity run) =>
        run.TrialId is { } trial ? new RunPlace(trial, new StepRole(run.Label!, run.Passage, run.Side)) : null;

    /// <exception cref="InvalidDataException">What is stored of it is damaged.</exception>
    private static async Task<Run> WholeAsync(BenchDatabase database, RunEntity run)
    {
        try
        {
            return await ReadAsync(database, run);
        }
        catch (Exception damage) when (damage is JsonException or InvalidDataException)
        {
            throw new InvalidDataException($"Run {run.Id} is stored but cannot be read: {damage.Message} It was not changed.", damage);
        }
    }

    private static async Task<Run> ReadAsync(BenchDatabase database, RunEntity run)
    {
        var (frames, loads) = run.Columns is { } whole ? await RunColumns.ReadAsync(whole) : await PiecesAsync(database, run.Id);
        var header = WholeHeader(run.HeaderJson) ?? throw new InvalidDataException("The stored timeline is damaged.");
        var lag = run.StartLagTicks is { } ticks ? new TimeSpan(ticks) : frames.FirstOrDefault(frame => frame.Shown is not null).Shown;
        return new Run(header, run.Ending, lag, frames, loads, Failures(run)) { Lags = Lags(run) };
    }

    /// <summary>What is kept of a run that plays, or that was not made whole yet.</summary>
    private static async Task<(IReadOnlyList<FrameRecord> Frames, IReadOnlyList<LoadReading> Loads)> PiecesAsync(
        BenchDatabase database,
        long id
    )
    {
        var (frames, loads) = (new List<FrameRecord>(), new List<LoadReading>());
        await foreach (var rows in database.RunPieces.AsNoTracking().Where(piece => piece.RunId == id)
            .OrderBy(piece => piece.Sequence).Select(piece => piece.Columns).AsAsyncEnumerable())
        {
            var (ofPiece, withThem) = await RunPiece.ReadAsync(rows);
            frames.AddRange(ofPiece);
            loads.AddRange(withThem);
        }

        return (frames, loads);
    }

    private static List<LagReading> Lags(RunEntity run) => ListOf<LagReading>(run.LagsJson);

    private static List<PassageFailure> Failures(RunEntity run) => ListOf<PassageFailure>(run.FailuresJson);

    private static List<T> ListOf<T>(string json) =>
        JsonSerializer.Deserialize<List<T>>(json, BenchJson.Options) is { } list && list.TrueForAll(one => one is not null)
            ? list
            : throw new InvalidDataException("A list in it is damaged.");
}
