namespace HardyBench.Core.Machines;

/// <summary>A workstation as its tester describes it.</summary>
/// <param name="Id">"this" for the machine the product runs on, else the stand-in's short name.</param>
/// <param name="Price">Whole price in <see cref="Currency"/>, or null when nobody has stated it.</param>
public sealed record Machine(
    string Id,
    string Name,
    MachineKind Kind,
    string Summary,
    Processor Processor,
    Graphics? Graphics,
    MediaEngine? MediaEngine,
    Memory Memory,
    Drive? MediaDrive,
    Cooling? Cooling,
    decimal? Price)
{
    /// <summary>The one currency of all prices.</summary>
    public const string Currency = "EUR";

    /// <summary>The id of the machine the product runs on.</summary>
    public const string ThisId = "this";
}

public enum MachineKind
{
    /// <summary>The machine the product runs on; timelines are really played.</summary>
    This,

    /// <summary>A simulated machine that ships with the product.</summary>
    StandIn,
}

/// <summary>The processor. Relative speed is against the reference core of <c>StandIns/DecodeCost</c>, which is 1;
/// null when it has not been measured.</summary>
public sealed record Processor(string Name, int Cores, int Threads, double? RelativeCoreSpeed, double? ClockGigahertz);

/// <summary>A graphics unit.</summary>
/// <param name="PeakGigaflops">Single-precision peak.</param>
/// <param name="BandwidthGigabytesPerSecond">Of its memory.</param>
/// <param name="BusGigabytesPerSecond">Between main memory and its own; null for a built-in unit, which shares memory.</param>
public sealed record Graphics(
    string Name,
    double PeakGigaflops,
    double BandwidthGigabytesPerSecond,
    double MemoryGigabytes,
    double? BusGigabytesPerSecond);

/// <summary>Memory of the machine.</summary>
/// <param name="InUseGigabytes">What the system and other programs hold before playing starts.</param>
public sealed record Memory(double Gigabytes, double InUseGigabytes, int? Sticks, int? MegatransfersPerSecond);

/// <summary>The drive that holds the media.</summary>
public sealed record Drive(string Kind, double MegabytesPerSecond, TimeSpan Latency);

/// <summary>What heat does to the machine, as one thermal mass behind one resistance.</summary>
/// <param name="IdleWatts">Power with nothing to do.</param>
/// <param name="FullWatts">Power with every core busy at full clock.</param>
public sealed record Cooling(
    bool Fanless,
    double ResistanceKelvinPerWatt,
    double CapacityJoulesPerKelvin,
    double AmbientCelsius,
    double LimitCelsius,
    double IdleWatts,
    double FullWatts);
