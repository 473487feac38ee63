using System.Security.Cryptography;
using HardyBench.Core.Machines;
using HardyBench.Store;
using HardyBench.Telemetry;

namespace HardyBench.Workbench.Machines;

/// <summary>Which computer the product runs on, as a machine with an id of its own.</summary>
public sealed class HostJobs
{
    private readonly Host here;

    private HostJobs(Host here, IReadOnlyList<Host> others, Host? movedFrom) => (this.here, Others, MovedFrom) = (here, others, movedFrom);

    /// <summary>The id of this machine.</summary>
    public string Id => here.Id;

    /// <summary>Computers that the data folder was used on before, the last of them at the end.</summary>
    public IReadOnlyList<Host> Others { get; }

    /// <summary>The computer that the data folder was used on before it was opened here now; null where it was this one.</summary>
    public Host? MovedFrom { get; }

    /// <summary>This machine with the parts that the kernel reports now.</summary>
    public Machine Machine => HostMachine.Describe(SystemFiles.Live, Id, Host.NameHere);

    /// <summary>The ids of all computers, this one's at the end.</summary>
    public IEnumerable<string> Ids => Others.Select(other => other.Id).Append(Id);

    /// <summary>Whether an id is that of a computer, this one or another: what was played on it was really played.</summary>
    public bool IsReal(string id) => Ids.Contains(id);

    /// <summary>Recognises the computer, or gives a new one its id, and notes that the folder is used on it.</summary>
    public static async Task<HostJobs> RecogniseAsync(HostStore store, SystemFiles files, DateTimeOffset now)
    {
        var (known, fingerprint) = (await store.AllAsync(), HostFingerprint.Of(files));
        var here = Host.Among(known, fingerprint) ?? new Host(NewId(), Host.NameHere, fingerprint, now);
        var last = known is [.., var latest] ? latest : null;
        // Mostly it is the computer that was used last, and there is nothing to note.
        var noted = last == here ? known : await store.UseAsync(here);
        Host[] others = [.. noted.Where(host => host.Id != here.Id)];
        return new HostJobs(here, others, last is null || last.Id == here.Id ? null : others[^1]);
    }

    private static string NewId() => "machine-" + RandomNumberGenerator.GetHexString(6, lowercase: true);
}
