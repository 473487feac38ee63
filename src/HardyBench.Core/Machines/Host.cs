namespace HardyBench.Core.Machines;

/// <summary>A computer on which a data folder was used. As a machine it has the same id.</summary>
/// <param name="Name">What its runs are listed under.</param>
/// <param name="Fingerprint">Tells it from other computers; null where the system has nothing to tell it by.</param>
/// <param name="FirstUsed">When the folder was first used on it.</param>
public sealed record Host(string Id, string Name, string? Fingerprint, DateTimeOffset FirstUsed)
{
    /// <summary>The name of the one on which the folder is used now.</summary>
    public const string NameHere = "This machine";

    /// <summary>The name of another one.</summary>
    public string NameElsewhere => FormattableString.Invariant($"Computer used from {FirstUsed:yyyy-MM-dd}");

    /// <summary>Which computer this is: the one with its fingerprint. One without a fingerprint, from an earlier version or a system that
    /// has none, is taken for this one where nothing says otherwise, the one used last first.</summary>
    /// <param name="known">In the order in which they were last used.</param>
    /// <returns>Null for a computer that the folder has never been used on.</returns>
    public static Host? Among(IReadOnlyList<Host> known, string? fingerprint) =>
        fingerprint is null ? (known is [.., var latest] ? latest : null)
        : known.FirstOrDefault(host => host.Fingerprint == fingerprint)
            ?? (known is [.., { Fingerprint: null } last] ? last with { Fingerprint = fingerprint } : null);
}
