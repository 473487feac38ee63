using System.Text.Json;
using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
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

/// <summary>A run as rows of the database, and back.</summary>
internal static class RunRows
{
    internal static RunEntity Begun(RunHeader header, RunPlace? place) => new()
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
        Differences = string.Join(RunLine.DifferenceMark, header.Differences()),
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

    internal static void End(RunEntity entity, Run run, byte[] columns)
    {
        entity.Ending = run.Ending;
        entity.StartLagTicks = run.StartLag is { } lag ? RunColumns.Rounded(lag).Ticks : null;
        entity.FailuresJson = JsonSerializer.Serialize(run.Failures, BenchJson.Options);
        entity.LagsJson = JsonSerializer.Serialize(run.Lags, BenchJson.Options);
        entity.Columns = columns;
        Keep(entity, run, RunSummary.Of(run));
    }

    /// <summary>Puts what was found beside the run.</summary>
    internal static void Keep(RunEntity entity, Run run, RunSummary summary)
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

    internal static List<string> NotesOf(string json)
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

    private static RunHeader? HeaderOf(string json) => FormerShapes.OfHeader(json).Deserialize<RunHeader>(BenchJson.Options);

    /// <returns>Null for one that is damaged, or lacks a part.</returns>
    internal static RunHeader? WholeHeader(string json)
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

    internal static async Task<StoredRun> StoredAsync(BenchDatabase database, RunEntity run) => new(run.Id, await WholeAsync(database, run))
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
    internal static async Task<Run> WholeAsync(BenchDatabase database, RunEntity run)
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

    internal static List<LagReading> Lags(RunEntity run) => ListOf<LagReading>(run.LagsJson);

    internal static List<PassageFailure> Failures(RunEntity run) => ListOf<PassageFailure>(run.FailuresJson);

    private static List<T> ListOf<T>(string json) =>
        JsonSerializer.Deserialize<List<T>>(json, BenchJson.Options) is { } list && list.TrueForAll(one => one is not null)
            ? list
            : throw new InvalidDataException("A list in it is damaged.");
}
