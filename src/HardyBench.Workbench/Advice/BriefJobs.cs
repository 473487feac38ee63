using HardyBench.Core;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Formats.Advice;
using HardyBench.Formats.Machines;
using HardyBench.Store;

namespace HardyBench.Workbench.Advice;

/// <summary>What became of a file of briefs.</summary>
public sealed record BriefOutcome(IReadOnlyList<Stored<Brief>> Added, IReadOnlyList<RowProblem> Problems);

/// <summary>What people need machines for.</summary>
public sealed class BriefJobs(ShelfStore<Brief> shelf)
{
    /// <summary>More than these no person looks through.</summary>
    public const int Most = 500;

    private const int LongestId = 60;

    public Task<IReadOnlyList<Stored<Brief>>> AllAsync() => shelf.AllAsync();

    /// <exception cref="UnknownThingException">There is no such brief.</exception>
    public async Task<Stored<Brief>> FindAsync(string id)
    {
        var all = await AllAsync();
        return all.FirstOrDefault(stored => stored.Thing.Id == id)
            ?? throw new UnknownThingException("brief", id, all.Select(stored => stored.Thing.Id));
    }

    /// <summary>Keeps a new one under an id made from its name.</summary>
    /// <exception cref="BriefRefusedException">It cannot be worked with.</exception>
    public async Task<Stored<Brief>> AddAsync(Brief brief) => (await AddAllAsync([BriefLimits.Checked(brief)]))[0];

    /// <exception cref="UnknownThingException">There is no such brief.</exception>
    /// <exception cref="BriefRefusedException">It cannot be worked with.</exception>
    /// <exception cref="VersionConflictException">It was changed since it was read.</exception>
    public async Task<Stored<Brief>> KeepAsync(Brief brief, int version)
    {
        await FindAsync(brief.Id);
        return new Stored<Brief>(brief, await shelf.KeepAsync([BriefLimits.Checked(brief)], version));
    }

    /// <summary>Deletes or restores one.</summary>
    /// <exception cref="UnknownThingException">There is none to delete or restore.</exception>
    public async Task SetDeletedAsync(string id, bool deleted)
    {
        if (!await shelf.SetDeletedAsync(id, deleted, DateTimeOffset.UtcNow))
        {
            throw new UnknownThingException("brief", id, (await AllAsync()).Select(stored => stored.Thing.Id));
        }
    }

    /// <summary>Adds every brief of a JSON text that can be worked with, and names the others.</summary>
    /// <exception cref="ShelfException">It holds none at all.</exception>
    public async Task<BriefOutcome> ImportAsync(string text)
    {
        var (briefs, problems) = BriefJson.Read(text);
        return new BriefOutcome(await AddAllAsync(briefs), problems);
    }

    /// <summary>All of them as JSON.</summary>
    public async Task<string> ExportAsync() => BriefJson.Write([.. (await AllAsync()).Select(stored => stored.Thing)]);

    private async Task<IReadOnlyList<Stored<Brief>>> AddAllAsync(IReadOnlyList<Brief> briefs)
    {
        var taken = await shelf.IdsAsync();
        if (taken.Count + briefs.Count > Most)
        {
            throw new BriefRefusedException(
                $"Up to {Most} briefs can be saved, deleted ones included; {briefs.Count} more would be too many. Nothing was added.");
        }

        var named = await new NewIds(LongestId, "brief")
            .GiveAsync(shelf, briefs, brief => (brief.Id, brief.Name), (brief, id) => brief with { Id = id });

        await shelf.KeepAsync(named, null);
        return [.. named.Select(brief => new Stored<Brief>(brief, 1))];
    }
}
