using HardyBench.Core;
using HardyBench.Core.Advice.Parts;
using HardyBench.Formats.Advice;
using HardyBench.Formats.Machines;
using HardyBench.Store;

namespace HardyBench.Workbench.Advice;

/// <summary>What became of a file of parts.</summary>
/// <param name="Changed">Parts that were there under the same id and are as the file has them now.</param>
public sealed record CatalogueOutcome(int Added, int Changed, IReadOnlyList<RowProblem> Problems);

/// <summary>The parts that machines can be put together from.</summary>
public sealed class CatalogueJobs(ShelfStore<Part> shelf)
{
    /// <summary>More builds than a day could look through come of more parts.</summary>
    public const int Most = 1000;

    private const int LongestId = 60;

    /// <summary>With the version that a change has to name.</summary>
    public Task<IReadOnlyList<Stored<Part>>> StoredAsync() => shelf.AllAsync();

    /// <summary>Keeps a new part, stated by its cells, under an id made from its name.</summary>
    /// <exception cref="PartRefusedException">It cannot be worked with, or there are too many.</exception>
    public async Task<Stored<Part>> AddAsync(IReadOnlyDictionary<string, string> cells)
    {
        if ((await shelf.IdsAsync()).Count >= Most)
        {
            throw new PartRefusedException($"Up to {Most} parts can be saved, deleted ones included. Nothing was added.");
        }

        var part = (await NamedAsync([Of(cells)]))[0];
        return new Stored<Part>(part, await shelf.KeepAsync([part], null));
    }

    /// <summary>Keeps a part as its cells state it now; what they leave out it has no more. Its kind stays.</summary>
    /// <exception cref="UnknownThingException">There is no such part.</exception>
    /// <exception cref="PartRefusedException">It cannot be worked with.</exception>
    /// <exception cref="VersionConflictException">It was changed since it was read.</exception>
    public async Task<Stored<Part>> KeepAsync(string id, IReadOnlyDictionary<string, string> cells, int version)
    {
        var all = await shelf.AllAsync();
        var before = all.FirstOrDefault(stored => stored.Thing.Id == id)?.Thing
            ?? throw new UnknownThingException("part", id, all.Select(stored => stored.Thing.Id));
        var part = Of(new Dictionary<string, string>(cells) { ["kind"] = PartCells.Of(before)["kind"], ["id"] = id });
        return new Stored<Part>(part, await shelf.KeepAsync([part], version));
    }

    public async Task<IReadOnlyList<Part>> AllAsync() => [.. (await shelf.AllAsync()).Select(stored => stored.Thing)];

    /// <summary>Adds every part of a JSON or CSV text that can be worked with, and names the others. One whose id is there is changed: a
    /// new list of prices comes in like that.</summary>
    /// <exception cref="ShelfException">It holds none at all.</exception>
    public async Task<CatalogueOutcome> ImportAsync(string text)
    {
        var (parts, problems) = text.AsSpan().TrimStart() is ['{' or '[', ..] or []
            ? CatalogueJson.Read(text)
            : CatalogueCsv.Read(text, await AllAsync());
        var versions = (await shelf.AllAsync()).ToDictionary(stored => stored.Thing.Id, stored => stored.Version);
        var added = await NamedAsync([.. parts.Where(part => !versions.ContainsKey(part.Id))]);
        var changed = parts.Where(part => versions.ContainsKey(part.Id)).DistinctBy(part => part.Id).ToList();
        var all = (await shelf.IdsAsync()).Union(added.Select(part => part.Id)).Count();
        if (all > Most)
        {
            throw new PartRefusedException(
                $"Up to {Most} parts can be saved, deleted ones included; with this file there would be {all}. Nothing was added.");
        }

        await shelf.KeepAsync(
            [.. added.Select(part => (part, (int?)null)), .. changed.Select(part => (part, (int?)versions[part.Id]))]);
        return new CatalogueOutcome(added.Count, changed.Count, problems);
    }

    private Task<IReadOnlyList<Part>> NamedAsync(IReadOnlyList<Part> parts) =>
        new NewIds(LongestId, "part").GiveAsync(shelf, parts, part => (part.Id, part.Name), (part, id) => part with { Id = id });

    /// <summary>All of them.</summary>
    /// <param name="format">"json" or "csv".</param>
    /// <exception cref="UnknownThingException">There is no such format.</exception>
    public async Task<string> ExportAsync(string format) => format switch
    {
        "json" => CatalogueJson.Write(await AllAsync()),
        "csv" => CatalogueCsv.Write(await AllAsync()),
        _ => throw new UnknownThingException("format", format, ["json", "csv"]),
    };

    private static Part Of(IReadOnlyDictionary<string, string> cells)
    {
        var filled = cells.Where(cell => !string.IsNullOrWhiteSpace(cell.Value)).Select(cell => (cell.Key, cell.Value.Trim()));
        var (part, problem) = PartCells.Read("the part", null, filled);
        return part ?? throw new PartRefusedException(problem!.Why);
    }

    /// <summary>Deletes or restores one.</summary>
    /// <exception cref="UnknownThingException">There is none to delete or restore.</exception>
    public async Task SetDeletedAsync(string id, bool deleted)
    {
        if (!await shelf.SetDeletedAsync(id, deleted, DateTimeOffset.UtcNow))
        {
            throw new UnknownThingException("part", id, (await AllAsync()).Select(part => part.Id));
        }
    }
}
