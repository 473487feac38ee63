using System.Text.Json;
using System.Text.Json.Nodes;
using HardyBench.Store.Entities;
using Microsoft.EntityFrameworkCore;

namespace HardyBench.Store;

/// <summary>Something that was deleted and can still be restored.</summary>
/// <param name="Kind">"run", "timeline", "machine", "brief", "part" or "editing program".</param>
public sealed record DeletedThing(string Kind, string Id, string Name, DateTimeOffset DeletedAt);

/// <summary>What was deleted, until it is removed for good.</summary>
public sealed class DeletedStore(BenchDatabaseFactory databases)
{
    /// <summary>How long what was deleted can be restored, clips too.</summary>
    public static readonly TimeSpan RestorableFor = TimeSpan.FromDays(31);

    /// <summary>The kind under which runs stand here.</summary>
    public const string Run = "run";

    /// <summary>Everything that can be restored from the database, the last deleted first.</summary>
    public async Task<IReadOnlyList<DeletedThing>> ListAsync()
    {
        await using var database = databases.CreateDbContext();
        var documents = await database.Documents.AsNoTracking()
            .Where(document => document.DeletedAtUtc != null && document.Json != string.Empty).ToListAsync();
        var runs = await database.Runs.AsNoTracking().Where(run => run.DeletedAtUtc != null)
            .Select(run => new { run.Id, run.DeletedAtUtc, run.Line!.Timeline, run.Line.Machine }).ToListAsync();
        return
        [
            .. documents.Select(document => 
                    new DeletedThing(document.Kind, document.Id, NameOf(document), At(document.DeletedAtUtc!.Value)))
                .Concat(runs.Select(run =>
                    new DeletedThing(Run, $"{run.Id}", $"{run.Timeline} on {run.Machine}", At(run.DeletedAtUtc!.Value))))
                .OrderByDescending(thing => thing.DeletedAt),
        ];
    }

    /// <summary>Restores a document.</summary>
    /// <returns>Whether there was one to restore.</returns>
    public async Task<bool> RestoreAsync(string kind, string id)
    {
        await using var database = databases.CreateDbContext();
        return await database.Documents
            .Where(document => document.Kind == kind && document.Id == id && document.DeletedAtUtc != null && document.Json != string.Empty)
            .ExecuteUpdateAsync(set => set.SetProperty(document => document.DeletedAtUtc, (DateTime?)null)) > 0;
    }

    /// <summary>Empties documents that were deleted longer ago than they can be restored. Their ids stay, so that what ships and was
    /// deleted is not added again.</summary>
    public async Task RemoveOldAsync(DateTimeOffset now)
    {
        await using var database = databases.CreateDbContext();
        var before = (now - RestorableFor).UtcDateTime;
        await database.Documents.Where(document => document.DeletedAtUtc != null && document.DeletedAtUtc < before)
            .ExecuteUpdateAsync(set => set.SetProperty(document => document.Json, string.Empty));
    }

    private static DateTimeOffset At(DateTime utc) => new(utc, TimeSpan.Zero);

    private static string NameOf(DocumentEntity document)
    {
        try
        {
            var json = JsonNode.Parse(document.Json) as JsonObject;
            return (string?)(json?["title"] ?? json?["name"]) ?? document.Id;
        }
        catch (Exception damaged) when (damaged is JsonException or InvalidOperationException)
        {
            return document.Id;
        }
    }
}
