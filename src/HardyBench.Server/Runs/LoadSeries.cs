using HardyBench.Core.Playback;
using static System.FormattableString;

namespace HardyBench.Server.Runs;

/// <summary>One load over time.</summary>
/// <param name="Group">Loads of one group share a drawing and a unit.</param>
/// <param name="Limit">Where its ceiling lies, in the same unit; null where there is none.</param>
/// <param name="At">Milliseconds from the start of the passage.</param>
public sealed record LoadSeries(
    string Group, string Name, string Unit, double? Limit, IReadOnlyList<double> At, IReadOnlyList<double> Values)
{
    private const string Processor = "Processor", Devices = "Graphics and media engine", Drives = "Drive", Work = "Player's work";

    /// <summary>Numbers within a kind lie below this bit; the kernel's numbers of threads do not exceed 2^22 (pid_max in
    /// proc(5)).</summary>
    private const int KindFrom = 23;

    /// <summary>Of the player's threads only so many, the busiest, are worth a line each.</summary>
    private const int MaxThreads = 3;

    /// <summary>The series worth a line, in the order of their kinds. One pass without queries: it is also made of every piece of
    /// news.</summary>
    public static IReadOnlyList<LoadSeries> Of(IEnumerable<LoadReading> loads, TimeSpan from)
    {
        var found = new SortedDictionary<int, Line>();
        foreach (var load in loads)
        {
            if (NameOf(load.Kind) is not null)
            {
                // By kind, then by number.
                var place = ((int)load.Kind << KindFrom) | load.Index;
                if (!found.TryGetValue(place, out var line))
                {
                    found[place] = line = new Line(load.Kind, load.Index);
                }

                line.Add(load, from);
            }
        }

        var series = new List<LoadSeries>();
        foreach (var line in found.Values)
        {
            if (line.Kind != LoadKind.OwnThread || IsBusy(line, found.Values))
            {
                series.Add(line.ToSeries());
            }
        }

        return series;
    }

    private static bool IsBusy(Line thread, IEnumerable<Line> all)
    {
        var busier = 0;
        foreach (var other in all)
        {
            busier += other.Kind == LoadKind.OwnThread && other.Sum > thread.Sum ? 1 : 0;
        }

        return busier < MaxThreads;
    }

    /// <summary>Group and name; null for what is worth no line. "#" stands for the number.</summary>
    private static (string Group, string Name)? NameOf(LoadKind kind) => kind switch
    {
        LoadKind.Core => (Processor, "core #"),
        LoadKind.OwnDecode => (Work, "decoding"),
        LoadKind.OwnEffects => (Work, "effects"),
        LoadKind.OwnEncode => (Work, "encoding"),
        LoadKind.OwnPresenting => (Work, "presenting"),
        LoadKind.OwnPictures => (Work, "preview pictures"),
        LoadKind.OwnTool => (Work, "the tool itself"),
        LoadKind.MemoryUsed => ("Memory", "in use"),
        LoadKind.SwapTraffic => ("Swap", "in and out"),
        LoadKind.DriveRead => (Drives, "read #"),
        LoadKind.GraphicsBusy => (Devices, "graphics compute"),
        LoadKind.MediaEngineBusy => (Devices, "media engine"),
        LoadKind.EncoderBusy => (Devices, "media engine, encoding"),
        LoadKind.OwnThread => ("Busiest threads", "thread #"),
        LoadKind.MemoryPressure => ("Waiting for memory", "tasks waiting"),
        LoadKind.FootageWait => ("Waiting for footage", "clip #"),
        LoadKind.DriveWrite => (Drives, "written #"),
        LoadKind.PackagePower => ("Power", "package #"),
        LoadKind.PowerLimit => ("Power", "limit #"),
        LoadKind.BatteryPower => ("Power", "from the battery"),
        LoadKind.GraphicsPower => ("Power", "graphics #"),
        LoadKind.BatteryCharge => ("Battery", "charge"),
        LoadKind.FanSpeed => ("Fans", "fan #"),
        LoadKind.GraphicsMemoryUsed => ("Graphics memory", "in use #"),
        LoadKind.GraphicsTemperature => ("Heat", "graphics #"),
        LoadKind.BusBusy => (Devices, "bus"),
        LoadKind.Clock => ("Clock", "clock"),
        LoadKind.Temperature => ("Heat", "processor"),
        _ => null,
    };

    /// <summary>A unit in which people read it, and how many of it go into the unit that is kept.</summary>
    private static (string Unit, double Factor) Shown(LoadUnit unit) => unit switch
    {
        LoadUnit.Share => ("%", 100),
        LoadUnit.Cores => ("cores", 1),
        LoadUnit.Bytes => ("GB", 1e-9),
        LoadUnit.BytesPerSecond => ("MB/s", 1e-6),
        LoadUnit.Hertz => ("GHz", 1e-9),
        LoadUnit.DegreesCelsius => ("°C", 1),
        LoadUnit.Watts => ("W", 1),
        LoadUnit.TurnsPerMinute => ("turns a minute", 1),
        _ => ("s", 1),
    };

    private sealed class Line(LoadKind kind, int index)
    {
        private readonly List<double> at = [];
        private readonly List<double> values = [];
        private readonly (string Unit, double Factor) shown = Shown(LoadUnits.UnitOf(kind));

        public LoadKind Kind => kind;

        public double Sum { get; private set; }

        public void Add(LoadReading load, TimeSpan from)
        {
            at.Add(Math.Round((load.At - from).TotalMilliseconds, 1));
            values.Add(Math.Round(load.Value * shown.Factor, 3));
            Sum += load.Value;
        }

        public LoadSeries ToSeries()
        {
            var (group, name) = NameOf(kind)!.Value;
            return new LoadSeries(
                group,
                name.Replace("#", Invariant($"{index}"), StringComparison.Ordinal),
                shown.Unit,
                LoadUnits.CeilingOf(kind) * shown.Factor,
                at,
                values
            );
        }
    }
}
