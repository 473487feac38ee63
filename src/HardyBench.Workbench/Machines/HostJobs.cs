using System.Security.Cryptography;
using HardyBench.Core.Machines;
using HardyBench.Store;
using HardyBench.Telemetry;

namespace HardyBench.Workbench.Machines;

/// <summary>Which computer the product runs on, as a machine with an id of its own.</summary>
public sealed class HostJobs
{
    private readonly Host here;

    private HostJobs(Host here, IReadOnlyList<Host> others, Host? last) =>
        (this.here, Others, MovedFrom) = (here, others, last is null ? null : others.FirstOrDefault(other => other.Id == last.Id));

    /// <summary>The id of this machine.</summary>
    public string Id => here.Id;

    /// <summary>Computers that the data folder was used on before, the last of them at the end.</summary>
    public IReadOnlyList<Host> Others { get; }

    /// <summary>The computer that the data folder was used on before it was opened here now; null where it was this one.</summary>
    public Host? MovedFrom { get; }

    /// <summary>This machine with the parts that the kernel reports now.</summary>
    public Machine Machine => HostMachine.Describe(SystemFiles.Live, Id, Host.NameHere);

    /// <summary>Whether an id is that of a computer, this one or another: what was played on it was really played.</summary>
    public bool IsReal(string id) => id == Id || Others.Any(other => other.Id == id);

    /// <summary>Recognises the computer, or gives a new one its id, and notes that the folder is used on it.</summary>
    public static async Task<HostJobs> RecogniseAsync(HostStore store, SystemFiles files, DateTimeOffset now)
    {
        var (known, fingerprint) = (await store.AllAsync(), HostFingerprint.Of(files));
        var here = Host.Among(known, fingerprint) ?? new Host(NewId(), Host.NameHere, fingerprint, now);
        await store.UseAsync(here);
        return new HostJobs(here, [.. (await store.AllAsync()).Where(host => host.Id != here.Id)], known is [.., var last] ? last : null);
    }

    private static string NewId() => "machine-" + RandomNumberGenerator.GetHexString(6, lowercase: true);
}
