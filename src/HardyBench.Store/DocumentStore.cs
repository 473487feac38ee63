using System.Text.Json;
using HardyBench.Core.Timelines;
using HardyBench.Formats.Json;
using HardyBench.Store.Entities;
using Microsoft.EntityFrameworkCore;

namespace HardyBench.Store;

/// <summary>A timeline as it is kept.</summary>
/// <param name="Version">Rises with every change.</param>
public sealed record StoredTimeline(Timeline Timeline, int Version);

/// <summary>A timeline that is kept and cannot be read or worked with.</summary>
public sealed record UnreadableTimeline(string Id, string Why);

/// <summary>Somebody else has changed a document since it was read.</summary>
public sealed class VersionConflictException(string id, int version, string noun = "timeline")
    : Exception(
        $"The {noun} '{id}' was changed in another window; it is at version {version} now. Nothing was overwritten. Load it "
            + "again, or save yours as a copy."
    );

/// <summary>Keeps timelines, and which machines the sheet of each shows.</summary>
public sealed class DocumentStore(BenchDatabaseFactory databases)
{
    internal const string TimelineKind = "timeline";

    private const string SheetKind = "sheet";

    /// <summary>All timelines that can be read.</summary>
    public async Task<IReadOnlyList<StoredTimeline>> TimelinesAsync() =>
        [.. (await AllAsync(TimelineKind)).Select(Stored).Where(one => one.Stored is not null).Select(one => one.Stored!)];

    /// <summary>Those that are kept and cannot be read or worked with, with the reason.</summary>
    public async Task<IReadOnlyList<UnreadableTimeline>> UnreadableAsync() =>
        [
            .. (await AllAsync(TimelineKind))
                .Select(document => (document.Id, Stored(document).Why))
                .Where(one => one.Why is not null)
                .Select(one => new UnreadableTimeline(one.Id, one.Why!)),
        ];

    /// <summary>A timeline by its id, or null.</summary>
    /// <exception cref="TimelineRefusedException">It is stored but cannot be read or worked with.</exception>
    public async Task<StoredTimeline?> FindTimelineAsync(string id)
    {
        await using var database = databases.CreateDbContext();
        if (await database.Documents.FindAsync(TimelineKind, id) is not { DeletedAtUtc: null } document)
        {
            return null;
        }

        var (stored, why) = Stored(document);
        return stored
            ?? throw new TimelineRefusedException($"The timeline '{id}' is stored but cannot be opened: {why} It was not changed.");
    }

    /// <summary>Ids that are taken, by timelines that can be read, by those that cannot and by deleted ones, and which are of deleted
    /// ones.</summary>
    public async Task<(IReadOnlySet<string> All, IReadOnlySet<string> Deleted)> TimelineIdsAsync()
    {
        await using var database = databases.CreateDbContext();
        var ids = await database.Documents.Where(document => document.Kind == TimelineKind)
            .Select(document => new { document.Id, document.DeletedAtUtc }).ToListAsync();
        return (
            ids.Select(one => one.Id).ToHashSet(),
            ids.Where(one => one.DeletedAtUtc is not null).Select(one => one.Id).ToHashSet());
    }

    /// <summary>The machines that a person chose for the sheet of a timeline; null where nobody chose.</summary>
    public async Task<IReadOnlyList<string>?> SheetMachinesAsync(string timelineId)
    {
        await using var database = databases.CreateDbContext();
        return await database.Documents.FindAsync(SheetKind, timelineId) is { } chosen ? Read<IReadOnlyList<string>>(chosen) : null;
    }

    /// <summary>Keeps that choice.</summary>
    public async Task KeepSheetMachinesAsync(string timelineId, IReadOnlyList<string> ids)
    {
        await using var database = databases.CreateDbContext();
        var fresh = Document(SheetKind, timelineId, 0, ids);
        if (await database.Documents.FindAsync(SheetKind, timelineId) is { } before)
        {
            before.Json = fresh.Json;
        }
        else
        {
            database.Add(fresh);
        }

        await database.SaveChangesAsync();
    }

    /// <summary>Adds timelines that ship, where their ids are not taken yet.</summary>
    public async Task AddShippedAsync(IReadOnlyList<Timeline> timelines)
    {
        await using var database = databases.CreateDbContext();
        foreach (var (order, timeline) in timelines.Index())
        {
            if (await database.Documents.FindAsync(TimelineKind, timeline.Id) is null)
            {
                database.Add(Document(TimelineKind, timeline.Id, order, timeline));
            }
        }

        await database.SaveChangesAsync();
    }

    /// <summary>Keeps a timeline under its id.</summary>
    /// <param name="version">The version it was read at; null for a new one.</param>
    /// <returns>Its version from now on.</returns>
    /// <exception cref="VersionConflictException">It was changed since, or the id of a new one is taken.</exception>
    /// <exception cref="TimelineRefusedException">It is larger than any that can be worked with, or lacks a part.</exception>
    public async Task<int> KeepAsync(Timeline timeline, int? version)
    {
        TimelineLimits.Checked(timeline);
        await using var database = databases.CreateDbContext();
        await using var step = await database.Database.BeginTransactionAsync();
        var existing = await database.Documents.FindAsync(TimelineKind, timeline.Id);
        if (existing is null)
        {
            var order =
                await database.Documents.Where(document => document.Kind == TimelineKind).MaxAsync(document => (int?)document.Order) ?? 0;
            existing = Document(TimelineKind, timeline.Id, order + 1, timeline);
            existing.Version = version ?? 0;
            database.Add(existing);
        }
        else if (existing.Version != version && (existing.DeletedAtUtc is null || version is not null))
        {
            throw new VersionConflictException(timeline.Id, existing.Version);
        }

        existing.DeletedAtUtc = null;
        existing.Version++;
        existing.Json = JsonSerializer.Serialize(timeline, BenchJson.Options);
        await database.SaveChangesAsync();
        await step.CommitAsync();
        return existing.Version;
    }

    /// <summary>Deletes a timeline, so that it can be restored for a while; its runs stay. Does nothing when there is none.</summary>
    public async Task DeleteTimelineAsync(string id, DateTimeOffset now)
    {
        await using var database = databases.CreateDbContext();
        await database.Documents.Where(document => document.Kind == TimelineKind && document.Id == id && document.DeletedAtUtc == null)
            .ExecuteUpdateAsync(set => set.SetProperty(document => document.DeletedAtUtc, now.UtcDateTime));
    }

    private static DocumentEntity Document<T>(string kind, string id, int order, T content) => new()
    {
        Kind = kind, Id = id, Order = order, Json = JsonSerializer.Serialize(content, BenchJson.Options),
    };

    private static (StoredTimeline? Stored, string? Why) Stored(DocumentEntity document)
    {
        try
        {
            var timeline = Read<Timeline>(document);
            return TimelineLimits.Problems(timeline).FirstOrDefault() is { } problem
                ? (null, problem)
                : (new StoredTimeline(timeline, document.Version), null);
        }
        catch (JsonException wrong)
        {
            return (null, wrong.Message);
        }
    }

    private static T Read<T>(DocumentEntity document) => JsonSerializer.Deserialize<T>(document.Json, BenchJson.Options)!;

    private async Task<IReadOnlyList<DocumentEntity>> AllAsync(string kind)
    {
        await using var database = databases.CreateDbContext();
        return await database
            .Documents.AsNoTracking()
            .Where(document => document.Kind == kind && document.DeletedAtUtc == null)
            .OrderBy(document => document.Order)
            .ToListAsync();
    }
}
