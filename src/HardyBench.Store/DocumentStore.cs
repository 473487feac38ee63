using System.Text.Json;
using HardyBench.Core.Machines;
using HardyBench.Core.Timelines;
using HardyBench.Formats.Json;
using HardyBench.Store.Entities;
using Microsoft.EntityFrameworkCore;

namespace HardyBench.Store;

/// <summary>Keeps timelines and machines.</summary>
public sealed class DocumentStore(BenchDatabaseFactory databases)
{
    private const string TimelineKind = "timeline", MachineKind = "machine";

    public Task<IReadOnlyList<Timeline>> TimelinesAsync() => AllAsync<Timeline>(TimelineKind);

    public Task<IReadOnlyList<Machine>> MachinesAsync() => AllAsync<Machine>(MachineKind);

    /// <summary>Keeps timelines and machines under their ids, in this order, in place of what those ids held.</summary>
    public async Task KeepAsync(IReadOnlyList<Timeline> timelines, IReadOnlyList<Machine> machines)
    {
        await using var database = databases.CreateDbContext();
        var documents = timelines.Select((timeline, order) => Document(TimelineKind, timeline.Id, order, timeline))
            .Concat(machines.Select((machine, order) => Document(MachineKind, machine.Id, order, machine)))
            .ToList();
        var existing = await database.Documents.ToDictionaryAsync(document => (document.Kind, document.Id));
        foreach (var document in documents)
        {
            if (existing.TryGetValue((document.Kind, document.Id), out var before))
            {
                (before.Order, before.Json) = (document.Order, document.Json);
            }
            else
            {
                database.Add(document);
            }
        }

        await database.SaveChangesAsync();
    }

    private static DocumentEntity Document<T>(string kind, string id, int order, T content) => new()
    {
        Kind = kind, Id = id, Order = order, Json = JsonSerializer.Serialize(content, BenchJson.Options),
    };

    private async Task<IReadOnlyList<T>> AllAsync<T>(string kind)
    {
        await using var database = databases.CreateDbContext();
        var documents = await database.Documents.AsNoTracking().Where(document => document.Kind == kind)
            .OrderBy(document => document.Order).Select(document => document.Json).ToListAsync();
        return [.. documents.Select(json => JsonSerializer.Deserialize<T>(json, BenchJson.Options)!)];
    }
}
