using HardyBench.Core;
using HardyBench.Core.Calibration;
using HardyBench.Core.Machines;
using HardyBench.Formats.Machines;
using HardyBench.Store;
using HardyBench.Telemetry;
using HardyBench.Workbench.Demo;

namespace HardyBench.Workbench.Machines;

/// <summary>What became of a file of machines.</summary>
public sealed record ShelfOutcome(IReadOnlyList<Stored<Machine>> Added, IReadOnlyList<RowProblem> Problems);

/// <summary>The list of machines: this machine, and the stand-ins that people keep.</summary>
public sealed class MachineJobs(ShelfStore<Machine> shelf, DocumentStore documents, HostJobs host)
{
    /// <summary>More columns than this do not go on a sheet.</summary>
    public const int MaxShown = 12;

    /// <summary>More machines than this are no shelf that a person looks at.</summary>
    public const int MaxOnShelf = 2000;

    private const int LongestId = 40;

    /// <summary>The machine that the product runs on.</summary>
    public HostJobs Host => host;

    /// <summary>This machine first, then the stand-ins.</summary>
    public async Task<IReadOnlyList<Machine>> AllAsync() => [.. (await ShelfAsync()).Select(stored => stored.Thing)];

    /// <summary>The same with their versions; this machine's is 0.</summary>
    public async Task<IReadOnlyList<Stored<Machine>>> ShelfAsync() =>
        [new Stored<Machine>(host.Machine, 0), .. await shelf.AllAsync()];

    /// <summary>Names of the same, of those that are deleted and of other computers, which runs and trials still name; by id.</summary>
    public async Task<IReadOnlyDictionary<string, string>> NamesAsync() =>
        (await AllAsync()).Concat((await shelf.DeletedAsync()).Select(stored => stored.Thing)).Select(machine => (machine.Id, machine.Name))
            .Concat(host.Others.Select(other => (other.Id, other.Name)))
            .ToDictionary();

    /// <exception cref="UnknownThingException">There is no such machine.</exception>
    public async Task<Machine> FindAsync(string id) => Known(await AllAsync(), id);

    /// <exception cref="UnknownThingException">There is no such machine.</exception>
    public async Task<Stored<Machine>> StoredAsync(string id)
    {
        var all = await ShelfAsync();
        return all.FirstOrDefault(stored => stored.Thing.Id == id)
            ?? throw new UnknownThingException("machine", id, all.Select(stored => stored.Thing.Id));
    }

    /// <summary>Keeps a new stand-in under an id made from its name.</summary>
    /// <exception cref="MachineRefusedException">It cannot be worked with.</exception>
    public async Task<Stored<Machine>> AddAsync(Machine machine) => (await AddAllAsync([MachineLimits.Checked(machine)]))[0];

    /// <summary>A copy of a machine under a name of its own, to change one part of.</summary>
    /// <exception cref="UnknownThingException">There is no such machine.</exception>
    public async Task<Stored<Machine>> DuplicateAsync(string id)
    {
        var all = await AllAsync();
        var machine = Known(all, id);
        return await AddAsync(machine with { Name = CopyOf(machine.Name, [.. all.Select(one => one.Name)]) });
    }

    /// <exception cref="MachineRefusedException">It cannot be worked with, or is the machine that this runs on.</exception>
    /// <exception cref="VersionConflictException">It was changed since it was read.</exception>
    public async Task<int> KeepAsync(Machine machine, int version)
    {
        await StoredAsync(NotHost(machine.Id));
        return await shelf.KeepAsync([MachineLimits.Checked(machine) with { Kind = MachineKind.StandIn }], version);
    }

    /// <summary>Deletes a stand-in; its runs stay, with the description it had then.</summary>
    /// <exception cref="UnknownThingException">There is no such machine.</exception>
    public async Task SetDeletedAsync(string id, bool deleted)
    {
        if (!await shelf.SetDeletedAsync(NotHost(id), deleted, DateTimeOffset.UtcNow))
        {
            throw new UnknownThingException("machine", id, (await AllAsync()).Select(machine => machine.Id));
        }
    }

    /// <summary>Adds every machine of a file that can be worked with, and names the others.</summary>
    /// <param name="fileName">Ends in .csv or .json.</param>
    /// <exception cref="ShelfException">It holds no machines at all.</exception>
    public async Task<ShelfOutcome> ImportAsync(string fileName, string text)
    {
        var read = Path.GetExtension(fileName).ToLowerInvariant() switch
        {
            ".json" => MachineJson.Read(text),
            ".csv" => MachineCsv.Read(text),
            var other => throw new ShelfException($"'{other}' is not a known file type; known: .json and .csv."),
        };
        var known = (await AllAsync()).ToDictionary(machine => machine.Id, Content);
        var again = read.Machines.Where(machine => known.GetValueOrDefault(machine.Id) == Content(machine)).ToList();
        return new ShelfOutcome(
            await AddAllAsync([.. read.Machines.Except(again)]),
            [
                .. read.Problems,
                .. again.Select(machine => new RowProblem(
                    machine.Id,
                    machine.Name,
                    "It is already in the list, unchanged. Nothing was added."
                )),
            ]
        );
    }

    /// <param name="ids">The machines wanted; none for the whole shelf of stand-ins.</param>
    /// <param name="format">"json" or "csv".</param>
    /// <exception cref="UnknownThingException">There is no such machine or format.</exception>
    public async Task<string> ExportAsync(IReadOnlyList<string> ids, string format)
    {
        var all = await AllAsync();
        IReadOnlyList<Machine> machines =
            ids.Count > 0 ? [.. ids.Select(id => Known(all, id))] : [.. all.Where(machine => machine.Kind == MachineKind.StandIn)];
        return format switch
        {
            "json" => MachineJson.Write(machines),
            "csv" => MachineCsv.Write(machines),
            _ => throw new UnknownThingException("format", format, ["json", "csv"]),
        };
    }

    /// <summary>The machines that the sheet of a timeline shows, in order: those that a person chose and that are still listed, else
    /// this one and a few others.</summary>
    public async Task<IReadOnlyList<Machine>> ShownAsync(string timelineId)
    {
        var (all, chosen) = ((await AllAsync()).ToDictionary(machine => machine.Id), await documents.SheetMachinesAsync(timelineId));
        IReadOnlyList<string> ids = chosen ?? [host.Id, .. DemoMachines.FirstShown];
        // The column of another computer is that of this one now.
        return [.. ids.Select(id => host.IsReal(id) ? host.Id : id).Distinct().Select(all.GetValueOrDefault).OfType<Machine>()];
    }

    /// <summary>Chooses them.</summary>
    /// <exception cref="UnknownThingException">One of them is not listed.</exception>
    /// <exception cref="MachineRefusedException">They are none, or too many.</exception>
    public async Task ShowAsync(string timelineId, IReadOnlyList<string> ids)
    {
        var known = (await AllAsync()).Select(machine => machine.Id).ToList();
        if (ids.Any(id => !known.Contains(id)))
        {
            throw new UnknownThingException("machine", ids.First(id => !known.Contains(id)) ?? "null", known);
        }

        var wanted = ids.Distinct().ToList();
        if (wanted.Count is 0 or > MaxShown)
        {
            throw new MachineRefusedException($"A sheet shows 1 to {MaxShown} machines, not {wanted.Count}.");
        }

        await documents.KeepSheetMachinesAsync(timelineId, wanted);
    }

    private static Machine Known(IReadOnlyList<Machine> all, string id) =>
        all.FirstOrDefault(machine => machine.Id == id)
        ?? throw new UnknownThingException("machine", id, all.Select(machine => machine.Id));

    private static string Content(Machine machine) => MachineJson.Write([machine]);

    private string NotHost(string id) => id != host.Id ? id
        : throw new MachineRefusedException(
            "This machine's description is read from the system and cannot be changed or deleted. Duplicate it to change the copy."
        );

    private static string CopyOf(string name, HashSet<string> taken)
    {
        var stem = name.Length > MachineLimits.LongestName - 8 ? name[..(MachineLimits.LongestName - 8)] : name;
        return Enumerable.Range(2, int.MaxValue - 2).Select(n => $"{stem} ({n})").First(copy => !taken.Contains(copy));
    }

    private async Task<IReadOnlyList<Stored<Machine>>> AddAllAsync(IReadOnlyList<Machine> machines)
    {
        var taken = await shelf.IdsAsync();
        if (machines.Count > 0 && taken.Count + machines.Count > MaxOnShelf)
        {
            throw new MachineRefusedException(
                $"Up to {MaxOnShelf} machines can be saved, deleted ones included; {machines.Count} more would be too many. "
                    + "Nothing was added."
            );
        }

        var named = await new NewIds(LongestId, "machine", [.. host.Ids, .. host.Ids.Select(Twin.IdOf)]).GiveAsync(
            shelf, machines, machine => (machine.Id, machine.Name), (machine, id) => machine with { Id = id, Kind = MachineKind.StandIn });

        await shelf.KeepAsync(named, null);
        return [.. named.Select(machine => new Stored<Machine>(machine, 1))];
    }
}
