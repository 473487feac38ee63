using HardyBench.Core.Playback;

namespace HardyBench.Telemetry;

/// <summary>Mains and batteries, from /sys/class/power_supply. The kernel gives millionths of a watt or of an ampere and a volt.</summary>
public sealed class PowerSupplies(SystemFiles files) : ILoadReader
{
    private const string Root = "sys/class/power_supply";

    private readonly List<string> batteries = OfType(files, "Battery");
    private readonly List<string> mains = OfType(files, "Mains");

    /// <summary>Whether it runs from the mains; null where there is no battery, or neither tells.</summary>
    public bool? OnMains => batteries.Count == 0 ? null
        : mains.Count > 0 ? mains.Any(supply => files.ReadNumber($"{Root}/{supply}/online") == 1)
        : Status(batteries[0]) is { } status ? status != "Discharging"
        : null;

    /// <summary>Charge of the first battery, 0 to 1, or null.</summary>
    public double? BatteryShare => batteries.Count == 0 ? null : files.ReadNumber($"{Root}/{batteries[0]}/capacity") / 100;

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        foreach (var (index, battery) in batteries.Index())
        {
            if (files.ReadNumber($"{Root}/{battery}/capacity") is { } percent)
            {
                into.Add(new LoadReading(at, LoadKind.BatteryCharge, index, (float)(percent / 100)));
            }

            var watts = files.ReadNumber($"{Root}/{battery}/power_now") / 1e6
                ?? files.ReadNumber($"{Root}/{battery}/current_now") * files.ReadNumber($"{Root}/{battery}/voltage_now") / 1e12;
            if (watts is { } drawn && Status(battery) == "Discharging")
            {
                into.Add(new LoadReading(at, LoadKind.BatteryPower, index, (float)drawn));
            }
        }
    }

    private string? Status(string supply) => files.ReadText($"{Root}/{supply}/status")?.Trim();

    private static List<string> OfType(SystemFiles files, string type) =>
        [.. files.Names(Root).Where(supply => files.ReadText($"{Root}/{supply}/type")?.Trim() == type)];
}
