namespace HardyBench.Core.Playback;

/// <summary>Programs that work beside the player on a stand-in.</summary>
/// <param name="Cores">Threads of theirs that never rest. They and the player's threads get the processor in equal turns, as common
/// schedulers give it.</param>
/// <param name="Gigabytes">Main memory that they hold.</param>
public sealed record OtherPrograms(double Cores, double Gigabytes)
{
    /// <summary>The most of either that can be stated.</summary>
    public const double MaxCores = 256, MostGigabytes = 8192;

    /// <summary>What keeps them from being played beside: sentences.</summary>
    public IEnumerable<string> Problems()
    {
        if (Cores is not (>= 0 and <= MaxCores))
        {
            yield return $"Other programs keep 0 to {MaxCores} cores busy.";
        }

        if (Gigabytes is not (>= 0 and <= MostGigabytes))
        {
            yield return $"Other programs hold 0 to {MostGigabytes} GB of memory.";
        }

        if (this is { Cores: 0, Gigabytes: 0 })
        {
            yield return "Other programs need cores or memory above 0; otherwise leave them out.";
        }
    }

    /// <summary>How much longer work takes beside them that would keep some cores busy, 1 or more. As many threads as cores are needed each
    /// get what they want; of more, each gets an equal part.</summary>
    /// <param name="wanted">Cores that it would keep busy.</param>
    /// <param name="cores">Of the processor.</param>
    public double Slowing(double wanted, int cores) => Math.Max(1, (wanted + Cores) / cores);

    /// <summary>Their part of the processor while nothing else works, 0 to 1.</summary>
    public double ShareAlone(int cores) => Math.Min(1, Cores / cores);
}
