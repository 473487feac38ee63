using System.Globalization;
using System.Text.Json;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Calibration;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback.Programs;
using HardyBench.Formats.Json;
using HardyBench.Store.Entities;
using Microsoft.EntityFrameworkCore;

namespace HardyBench.Store;

/// <summary>A thing of a shelf as it is kept.</summary>
/// <param name="Version">0 for one that ships and was never changed; rises with every change.</param>
public sealed record Stored<T>(T Thing, int Version);

/// <summary>Keeps things of one kind that people own, in an order, each under an id.</summary>
/// <param name="kind">What they are, as messages name one: "machine".</param>
public sealed class ShelfStore<T>(BenchDatabaseFactory databases, string kind, Func<T, string> idOf)
{
    /// <summary>All that are not deleted.</summary>
    public Task<IReadOnlyList<Stored<T>>> AllAsync() => AllAsync(deleted: false);

    /// <summary>Those that are deleted and can still be restored.</summary>
    public Task<IReadOnlyList<Stored<T>>> DeletedAsync() => AllAsync(deleted: true);

    private async Task<IReadOnlyList<Stored<T>>> AllAsync(bool deleted)
    {
        await using var database = databases.CreateDbContext();
        var documents = await database
            .Documents.AsNoTracking()
            .Where(document => document.Kind == kind && document.DeletedAtUtc != null == deleted)
            .OrderBy(document => document.Order)
            .ToListAsync();
        return
        [
            .. documents.Select(document =>
                new Stored<T>(JsonSerializer.Deserialize<T>(document.Json, BenchJson.Options)!, document.Version)),
        ];
    }

    /// <summary>Ids that are taken, by deleted ones too: a run still names them.</summary>
    public async Task<IReadOnlySet<string>> IdsAsync()
    {
        await using var database = databases.CreateDbContext();
        return await database.Documents.Where(document => document.Kind == kind).Select(document => document.Id).ToHashSetAsync();
    }

    /// <summary>Ids of deleted ones.</summary>
    public async Task<IReadOnlySet<string>> DeletedIdsAsync()
    {
        await using var database = databases.CreateDbContext();
        return await database.Documents.Where(document => document.Kind == kind && document.DeletedAtUtc != null)
            .Select(document => document.Id).ToHashSetAsync();
    }

    /// <summary>Saves things under their ids, all or none; new ones at the end.</summary>
    /// <param name="version">The version that the only one was read at; null for new ones.</param>
    /// <returns>The version of the last from now on.</returns>
    /// <exception cref="VersionConflictException">It was changed since, or the id of a new one is taken.</exception>
    public Task<int> KeepAsync(IReadOnlyList<T> things, int? version) => KeepAsync([.. things.Select(thing => (thing, version))]);

    /// <summary>Saves things under their ids, all or none, each with the version that it was read at, or null for a new one. A new one
    /// under the id of a deleted one takes its place.</summary>
    /// <returns>The version of the last from now on.</returns>
    /// <exception cref="VersionConflictException">One was changed since, or the id of a new one is taken; nothing was saved.</exception>
    public async Task<int> KeepAsync(IReadOnlyList<(T Thing, int? Version)> things)
    {
        await using var database = databases.CreateDbContext();
        await using var step = await database.Database.BeginTransactionAsync();
        var order = await database.Documents.Where(document => document.Kind == kind).MaxAsync(document => (int?)document.Order) ?? 0;
        var kept = 0;
        foreach (var (thing, version) in things)
        {
            var json = JsonSerializer.Serialize(thing, BenchJson.Options);
            if (await database.Documents.FindAsync(kind, idOf(thing)) is not { } existing)
            {
                existing = new DocumentEntity { Kind = kind, Id = idOf(thing), Order = ++order, Json = json };
                database.Add(existing);
            }
            else if (existing.Version != version && (existing.DeletedAtUtc is null || version is not null))
            {
                throw new VersionConflictException(existing.Id, existing.Version, kind);
            }

            (existing.Json, existing.DeletedAtUtc) = (json, null);
            kept = ++existing.Version;
        }

        await database.SaveChangesAsync();
        await step.CommitAsync();
        return kept;
    }

    /// <summary>The last so many that are not deleted, in their order.</summary>
    public async Task<IReadOnlyList<T>> LastAsync(int count)
    {
        await using var database = databases.CreateDbContext();
        var documents = await database
            .Documents.AsNoTracking()
            .Where(document => document.Kind == kind && document.DeletedAtUtc == null)
            .OrderByDescending(document => document.Order)
            .Take(count)
            .ToListAsync();
        return [.. documents.Select(document => JsonSerializer.Deserialize<T>(document.Json, BenchJson.Options)!).Reverse()];
    }

    /// <summary>Keeps one under its id whatever was there, at the end where nothing was.</summary>
    public async Task ReplaceAsync(T thing)
    {
        await using var database = databases.CreateDbContext();
        await using var step = await database.Database.BeginTransactionAsync();
        var json = JsonSerializer.Serialize(thing, BenchJson.Options);
        if (await database.Documents.FindAsync(kind, idOf(thing)) is not { } existing)
        {
            var order = await database.Documents.Where(document => document.Kind == kind).MaxAsync(document => (int?)document.Order) ?? 0;
            existing = new DocumentEntity { Kind = kind, Id = idOf(thing), Order = order + 1, Json = json };
            database.Add(existing);
        }

        (existing.Json, existing.DeletedAtUtc) = (json, null);
        existing.Version++;
        await database.SaveChangesAsync();
        await step.CommitAsync();
    }

    /// <summary>Deletes or restores one; runs that name it stay.</summary>
    /// <returns>Whether there is one to delete or restore.</returns>
    public async Task<bool> SetDeletedAsync(string id, bool deleted, DateTimeOffset now)
    {
        await using var database = databases.CreateDbContext();
        DateTime? moment = deleted ? now.UtcDateTime : null;
        return await database
            .Documents.Where(document =>
                document.Kind == kind && document.Id == id && document.DeletedAtUtc == null == deleted && document.Json != string.Empty)
            .ExecuteUpdateAsync(set => set.SetProperty(document => document.DeletedAtUtc, moment)) > 0;
    }

    /// <summary>Adds those that ship and brings them up to date; those that a person changed or deleted stay as they are.</summary>
    public async Task AddShippedAsync(IReadOnlyList<T> things)
    {
        await using var database = databases.CreateDbContext();
        foreach (var (order, thing) in things.Index())
        {
            var json = JsonSerializer.Serialize(thing, BenchJson.Options);
            if (await database.Documents.FindAsync(kind, idOf(thing)) is not { } before)
            {
                database.Add(new DocumentEntity { Kind = kind, Id = idOf(thing), Order = order, Json = json });
            }
            else if (before is { Version: 0, DeletedAtUtc: null })
            {
                (before.Order, before.Json) = (order, json);
            }
        }

        await database.SaveChangesAsync();
    }
}

/// <summary>The shelves that there are.</summary>
public static class Shelves
{
    internal const string MachineKind = "machine";

    public static ShelfStore<Machine> Machines(BenchDatabaseFactory databases) => new(databases, MachineKind, machine => machine.Id);

    public static ShelfStore<Brief> Briefs(BenchDatabaseFactory databases) => new(databases, "brief", brief => brief.Id);

    public static ShelfStore<MachineCalibration> Calibrations(BenchDatabaseFactory databases) =>
        new(databases, "calibration", calibration => calibration.Id);

    public static ShelfStore<Prediction> Predictions(BenchDatabaseFactory databases) =>
        new(databases, "prediction", prediction => prediction.RunId.ToString(CultureInfo.InvariantCulture));

    public static ShelfStore<Part> Parts(BenchDatabaseFactory databases) => new(databases, "part", part => part.Id);

    public static ShelfStore<EditingProgram> Programs(BenchDatabaseFactory databases) =>
        new(databases, "editing program", program => program.Id);
}
