using HardyBench.Core;
using HardyBench.Core.Playback.Programs;
using HardyBench.Formats.Machines;
using HardyBench.Formats.Programs;
using HardyBench.Store;

namespace HardyBench.Workbench.Programs;

/// <summary>What became of a file of editing programs.</summary>
public sealed record ProgramOutcome(IReadOnlyList<Stored<EditingProgram>> Added, IReadOnlyList<RowProblem> Problems);

/// <summary>The editing programs that stand-ins can play as. The product's own player is none of them: it is what plays where none is
/// chosen.</summary>
public sealed class ProgramJobs(ShelfStore<EditingProgram> shelf)
{
    /// <summary>More than these no person chooses from.</summary>
    public const int Most = 200;

    private const int LongestId = 40;

    public Task<IReadOnlyList<Stored<EditingProgram>>> AllAsync() => shelf.AllAsync();

    /// <exception cref="UnknownThingException">There is no such editing program.</exception>
    public async Task<EditingProgram> FindAsync(string id)
    {
        var all = await AllAsync();
        return all.FirstOrDefault(stored => stored.Thing.Id == id)?.Thing
            ?? throw new UnknownThingException("editing program", id, all.Select(stored => stored.Thing.Id));
    }

    /// <summary>Keeps a new one under an id made from its name.</summary>
    /// <exception cref="ProgramRefusedException">It cannot be worked with.</exception>
    public async Task<Stored<EditingProgram>> AddAsync(EditingProgram program) => (await AddAllAsync([ProgramLimits.Checked(program)]))[0];

    /// <exception cref="UnknownThingException">There is no such editing program.</exception>
    /// <exception cref="ProgramRefusedException">It cannot be worked with.</exception>
    /// <exception cref="VersionConflictException">It was changed since it was read.</exception>
    public async Task<int> KeepAsync(EditingProgram program, int version)
    {
        await FindAsync(program.Id);
        return await shelf.KeepAsync([ProgramLimits.Checked(program)], version);
    }

    /// <summary>Deletes or restores one; runs keep the description that they were played by.</summary>
    /// <exception cref="UnknownThingException">There is none to delete or restore.</exception>
    public async Task SetDeletedAsync(string id, bool deleted)
    {
        if (!await shelf.SetDeletedAsync(id, deleted, DateTimeOffset.UtcNow))
        {
            throw new UnknownThingException("editing program", id, (await AllAsync()).Select(stored => stored.Thing.Id));
        }
    }

    /// <summary>Adds every editing program of a JSON text that can be worked with, and names the others.</summary>
    /// <exception cref="ShelfException">It holds none at all.</exception>
    public async Task<ProgramOutcome> ImportAsync(string text)
    {
        var (programs, problems) = ProgramJson.Read(text);
        return new ProgramOutcome(await AddAllAsync(programs), problems);
    }

    /// <summary>All of them as JSON.</summary>
    public async Task<string> ExportAsync() => ProgramJson.Write([.. (await AllAsync()).Select(stored => stored.Thing)]);

    private async Task<IReadOnlyList<Stored<EditingProgram>>> AddAllAsync(IReadOnlyList<EditingProgram> programs)
    {
        var taken = await shelf.IdsAsync();
        if (taken.Count + programs.Count > Most)
        {
            throw new ProgramRefusedException(
                $"Up to {Most} editing programs can be saved, deleted ones included; {programs.Count} more would be too many. Nothing was added."
            );
        }

        var named = await new NewIds(LongestId, "program")
            .GiveAsync(shelf, programs, program => (program.Id, program.Name), (program, id) => program with { Id = id });

        await shelf.KeepAsync(named, null);
        return [.. named.Select(program => new Stored<EditingProgram>(program, 1))];
    }
}
