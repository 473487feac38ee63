using System.Net;

namespace HardyBench.Server.Guard;

/// <summary>Counts wrong tokens by address, so that nobody can try many.</summary>
public sealed class SignInAttempts(TimeProvider time)
{
    /// <summary>Wrong tokens within the time, after which an address waits.</summary>
    public const int Most = 10;

    /// <summary>Addresses that are remembered; beyond that the oldest are forgotten.</summary>
    private const int MaxAddresses = 10_000;

    public static readonly TimeSpan Within = TimeSpan.FromMinutes(1);

    private readonly Lock gate = new();
    private readonly Dictionary<IPAddress, (int Count, DateTimeOffset Since)> wrong = [];

    /// <summary>How long an address has to wait before its next try counts; null where it need not.</summary>
    public TimeSpan? Wait(IPAddress address)
    {
        lock (gate)
        {
            return wrong.TryGetValue(address, out var known) && known.Count >= Most && known.Since + Within - time.GetUtcNow() is var left
                && left > TimeSpan.Zero ? left : null;
        }
    }

    /// <summary>Notes a wrong token.</summary>
    /// <returns>How many that makes within the time.</returns>
    public int Note(IPAddress address)
    {
        lock (gate)
        {
            var now = time.GetUtcNow();
            if (wrong.Count >= MaxAddresses)
            {
                foreach (var old in wrong.OrderBy(one => one.Value.Since).Take(MaxAddresses / 2).Select(one => one.Key).ToList())
                {
                    wrong.Remove(old);
                }
            }

            var known = wrong.TryGetValue(address, out var before) && now - before.Since < Within ? before : (Count: 0, Since: now);
            wrong[address] = (known.Count + 1, known.Since);
            return known.Count + 1;
        }
    }
}
