using System.Text.Json;
using HardyBench.Core.Calibration;
using HardyBench.Core.Machines;
using HardyBench.Formats.Json;
using HardyBench.Store.Entities;
using Microsoft.EntityFrameworkCore;

namespace HardyBench.Store;

/// <summary>Keeps which computers a data folder was used on.</summary>
public sealed class HostStore(BenchDatabaseFactory databases)
{
    /// <summary>The kind of its documents; the order is that of the last use.</summary>
    internal const string Kind = "host";

    /// <summary>All of them, in the order in which they were last used.</summary>
    public async Task<IReadOnlyList<Host>> AllAsync()
    {
        await using var database = databases.CreateDbContext();
        return [.. (await RowsAsync(database)).Select(Read)];
    }

    /// <summary>Notes that the folder is used on a computer from now on. Runs of the one that was used until now are listed under a
    /// name that says so.</summary>
    /// <returns>All of them as they are kept now.</returns>
    public async Task<IReadOnlyList<Host>> UseAsync(Host host)
    {
        await using var database = databases.CreateDbContext();
        await using var step = await database.Database.BeginTransactionAsync();
        var rows = await RowsAsync(database);
        foreach (var row in rows.Where(row => row.Id != host.Id))
        {
            var other = Read(row);
            if (other.Name != other.NameElsewhere)
            {
                await NameAsync(database, row, other with { Name = other.NameElsewhere });
            }
        }

        var order = rows.Select(row => row.Order).DefaultIfEmpty().Max() + 1;
        var named = host with { Name = Host.NameHere };
        if (rows.FirstOrDefault(row => row.Id == host.Id) is not { } here)
        {
            database.Add(new DocumentEntity { Kind = Kind, Id = host.Id, Order = order, Json = Written(named) });
        }
        else
        {
            here.Order = order;
            await NameAsync(database, here, named);
        }

        await database.SaveChangesAsync();
        await step.CommitAsync();
        return await AllAsync();
    }

    /// <summary>Keeps a host under its name, and names its runs alike: in lists and where they are opened.</summary>
    private static async Task NameAsync(BenchDatabase database, DocumentEntity row, Host named)
    {
        var before = Read(row).Name;
        row.Json = Written(named);
        if (before != named.Name)
        {
            await database.Database.ExecuteSqlAsync(
                $"""
                UPDATE Runs SET HeaderJson = json_set(HeaderJson, '$.machine.name', {named.Name})
                WHERE MachineId = {named.Id} AND json_valid(HeaderJson)
                """);
            await database.Database.ExecuteSqlAsync(
                $"""
                UPDATE RunLines SET Machine = {named.Name},
                    Words = replace(Words, {before.ToLowerInvariant()}, {named.Name.ToLowerInvariant()})
                WHERE RunId IN (SELECT Id FROM Runs WHERE MachineId = {named.Id})
                """);
            await database.Database.ExecuteSqlAsync(
                $"""
                UPDATE Documents SET Json = json_set(Json, '$.name', {Twin.NameOf(named.Name)})
                WHERE Kind = {Shelves.MachineKind} AND Id = {Twin.IdOf(named.Id)}
                """);
        }
    }

    private static Task<List<DocumentEntity>> RowsAsync(BenchDatabase database) =>
        database.Documents.Where(row => row.Kind == Kind).OrderBy(row => row.Order).ToListAsync();

    private static Host Read(DocumentEntity row) => JsonSerializer.Deserialize<Host>(row.Json, BenchJson.Options)!;

    private static string Written(Host host) => JsonSerializer.Serialize(host, BenchJson.Options);
}
