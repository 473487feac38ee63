using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>The figures by which a limiter is known. Shares are 0 to 1.</summary>
public abstract record Evidence
{
    /// <summary>From when to when the loads were read, from the key.</summary>
    public TimeSpan From { get; init; }

    /// <inheritdoc cref="From"/>
    public TimeSpan To { get; init; }
}

/// <param name="SwapTraffic">Bytes a second.</param>
public sealed record FullMemory(double Used, double SwapTraffic) : Evidence;

/// <param name="Standing">Share of time for which tasks stood still.</param>
public sealed record ShortOfMemory(double Standing) : Evidence;

/// <param name="Waiting">Share of time for which the player waited for a clip to be read.</param>
public sealed record LateFootage(double Waiting) : Evidence;

/// <param name="Device">What is busy: a media engine, graphics compute, a drive, the bus.</param>
public sealed record BusyDevice(LoadKind Device, double Busy) : Evidence;

/// <param name="Clock">Hertz.</param>
/// <param name="Rated">Hertz.</param>
public sealed record FallenClock(double Clock, double Rated, double Celsius) : Evidence;

/// <param name="Clock">Hertz.</param>
/// <param name="Rated">Hertz.</param>
/// <param name="Limit">The power that may be drawn, watts; null where it is not known.</param>
public sealed record CappedPower(double Clock, double Rated, double? Limit, double? Celsius) : Evidence;

/// <param name="Used">Bytes.</param>
/// <param name="Bus">Share of the time that the bus is busy.</param>
public sealed record FullGraphicsMemory(double Used, double Bus) : Evidence;

/// <param name="Work">The share of the player's work that the limiter names.</param>
public sealed record BusyProcessor(double Busy, double Work) : Evidence;

/// <param name="Own">Cores with the player.</param>
/// <param name="Cores">Cores that it may use.</param>
public sealed record TakenProcessor(double Busy, double Own, int Cores) : Evidence;

/// <param name="Pool">The processor as a whole.</param>
public sealed record BusyThread(double Busy, double Pool) : Evidence;

/// <param name="Next">The busiest of the other cores.</param>
public sealed record BusyCore(double Busy, double Next) : Evidence;

/// <param name="Pool">The processor as a whole.</param>
/// <param name="OtherDrive">A busy drive that holds none of the footage, or null.</param>
public sealed record NothingAtItsLimit(double Pool, string? OtherDrive, double? OtherBusy) : Evidence;

/// <summary>No loads could be read.</summary>
public sealed record NothingRead : Evidence;

/// <param name="Why">What the player said, a sentence.</param>
public sealed record NotPlayed(string Why) : Evidence;
