namespace HardyBench.Core.Playback;

/// <summary>What a load is measured in.</summary>
public enum LoadUnit
{
    /// <summary>0 to 1.</summary>
    Share,

    /// <summary>Seconds of processor time a second.</summary>
    Cores,

    Bytes,

    BytesPerSecond,

    Hertz,

    DegreesCelsius,

    Watts,

    TurnsPerMinute,

    Seconds,
}

/// <summary>Units and ceilings of loads.</summary>
public static class LoadUnits
{
    public static LoadUnit UnitOf(LoadKind kind) => kind switch
    {
        LoadKind.Core or LoadKind.DriveBusy or LoadKind.GraphicsBusy or LoadKind.MediaEngineBusy or LoadKind.BusBusy
            or LoadKind.BatteryCharge or LoadKind.MemoryPressure or LoadKind.FootageWait
            or LoadKind.EncoderBusy => LoadUnit.Share,
        LoadKind.OwnProcess or LoadKind.OwnDecode or LoadKind.OwnEffects or LoadKind.OwnPresenting or LoadKind.OwnTool
            or LoadKind.OwnThread or LoadKind.OwnPictures or LoadKind.OwnEncode => LoadUnit.Cores,
        LoadKind.MemoryUsed or LoadKind.MemoryFitted or LoadKind.SwapUsed or LoadKind.GraphicsMemoryUsed
            or LoadKind.GraphicsMemoryFitted => LoadUnit.Bytes,
        LoadKind.SwapTraffic or LoadKind.DriveRead or LoadKind.DriveWrite => LoadUnit.BytesPerSecond,
        LoadKind.Clock or LoadKind.RatedClock => LoadUnit.Hertz,
        LoadKind.Temperature or LoadKind.GraphicsTemperature => LoadUnit.DegreesCelsius,
        LoadKind.PackagePower or LoadKind.BatteryPower or LoadKind.GraphicsPower or LoadKind.PowerLimit => LoadUnit.Watts,
        LoadKind.FanSpeed => LoadUnit.TurnsPerMinute,
        LoadKind.Asleep or LoadKind.ClockSet or LoadKind.WastedWork => LoadUnit.Seconds,
        _ => throw new ArgumentOutOfRangeException(nameof(kind), kind, "This load has no unit."),
    };

    /// <summary>What it cannot exceed, in its unit: all of a share, and one core for one thread. Null where no such limit is
    /// known.</summary>
    public static double? CeilingOf(LoadKind kind) => kind == LoadKind.OwnThread || UnitOf(kind) == LoadUnit.Share ? 1 : null;
}
