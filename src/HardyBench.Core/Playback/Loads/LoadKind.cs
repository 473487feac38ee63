namespace HardyBench.Core.Playback;

/// <summary>What a load reading is of. The unit stands with each.</summary>
public enum LoadKind : byte
{
    /// <summary>One core, share of its time busy, 0 to 1. Index: the core.</summary>
    Core,

    /// <summary>Our own process, in cores.</summary>
    OwnProcess,

    /// <summary>Our decoding threads, in cores.</summary>
    OwnDecode,

    /// <summary>Our effects threads, in cores.</summary>
    OwnEffects,

    /// <summary>Our presenting thread, in cores: mostly the spinning that makes it wake in time.</summary>
    OwnPresenting,

    /// <summary>All else of our process, in cores: sampling, logging, keeping and telling pages.</summary>
    OwnTool,

    /// <summary>Main memory in use, bytes; where the system leaves the player only a part of the memory, of that part.</summary>
    MemoryUsed,

    /// <summary>Main memory that the player may fill, bytes: what is fitted, or the part that the system leaves it.</summary>
    MemoryFitted,

    /// <summary>Swap in use, bytes.</summary>
    SwapUsed,

    /// <summary>Swapped in and out, bytes a second.</summary>
    SwapTraffic,

    /// <summary>Read from drives, bytes a second. Index: the drive.</summary>
    DriveRead,

    /// <summary>Share of time a drive was busy, 0 to 1. Index: the drive.</summary>
    DriveBusy,

    /// <summary>Processor clock, hertz, mean over cores.</summary>
    Clock,

    /// <summary>Processor clock without throttling, hertz.</summary>
    RatedClock,

    /// <summary>Processor temperature, degrees Celsius.</summary>
    Temperature,

    /// <summary>Graphics compute, share busy, 0 to 1. Index: the unit.</summary>
    GraphicsBusy,

    /// <summary>Graphics memory in use, bytes. Index: the unit.</summary>
    GraphicsMemoryUsed,

    /// <summary>Media engine, share busy, 0 to 1. Index: the engine.</summary>
    MediaEngineBusy,

    /// <summary>Bus to the graphics unit, share busy, 0 to 1.</summary>
    BusBusy,

    /// <summary>One thread of the player, in cores. Index: the kernel's number of it.</summary>
    OwnThread,

    /// <summary>Power of the processor package, watts. Index: the package.</summary>
    PackagePower,

    /// <summary>Charge of the battery, 0 to 1.</summary>
    BatteryCharge,

    /// <summary>Power drawn from the battery, watts.</summary>
    BatteryPower,

    /// <summary>Turns of a fan a minute. Index: the fan.</summary>
    FanSpeed,

    /// <summary>Written to drives, bytes a second. Index: the drive.</summary>
    DriveWrite,

    /// <summary>Power of a graphics unit, watts. Index: the unit.</summary>
    GraphicsPower,

    /// <summary>Temperature of a graphics unit, degrees Celsius. Index: the unit.</summary>
    GraphicsTemperature,

    /// <summary>Share of time that tasks stood still for want of memory, 0 to 1 (the kernel's pressure figures).</summary>
    MemoryPressure,

    /// <summary>The machine was suspended since the reading before, seconds. Only where it was.</summary>
    Asleep,

    /// <summary>The time of day was set by this many seconds since the reading before. Only where it was.</summary>
    ClockSet,

    /// <summary>Our making of preview pictures, in cores.</summary>
    OwnPictures,

    /// <summary>Work on a frame that was not shown, reading, decoding and effects together, seconds. One a frame, and only where there
    /// was.</summary>
    WastedWork,

    /// <summary>Share of time that the player waited for a clip to be read, 0 to 1. Index: the clip, in the order of opening.</summary>
    FootageWait,

    /// <summary>Our encoder, where a film is written, in cores.</summary>
    OwnEncode,

    /// <summary>What a media engine encodes with, share busy, 0 to 1.</summary>
    EncoderBusy,

    /// <summary>The most power that the processor package may draw for long, watts. Index: the package. Only where there is a
    /// limit.</summary>
    PowerLimit,

    /// <summary>Memory of a graphics unit, bytes. Index: the unit.</summary>
    GraphicsMemoryFitted,
}
