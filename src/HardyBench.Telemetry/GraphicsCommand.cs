using System.Diagnostics;
using System.Globalization;
using HardyBench.Core.Playback;

namespace HardyBench.Telemetry;

/// <summary>Graphics loads as a maker's own command tells them, where one is installed: started once, it writes a line a unit several
/// times a second, and the newest lines are the reading.</summary>
/// <param name="command">The command and its arguments. It must write: unit, busy %, media engine %, memory MiB, watts, °C.</param>
/// <param name="firstIndex">Index of its first unit, past those that the kernel tells of itself, so that two sources never mix.</param>
public sealed class GraphicsCommand(IReadOnlyList<string> command, int firstIndex = 0) : ILoadReader, IDisposable
{
    /// <summary>The commands that are known, by the name under which they are installed.</summary>
    public static IReadOnlyList<IReadOnlyList<string>> Known { get; } =
    [
        [
            "nvidia-smi", "--query-gpu=index,utilization.gpu,utilization.decoder,memory.used,power.draw,temperature.gpu",
            "--format=csv,noheader,nounits", "--loop-ms=250",
        ],
    ];

    private static bool IsConfined =>
        Environment.GetEnvironmentVariable("HARDYBENCH_CONFINED")?.Contains("alone", StringComparison.Ordinal) == true;

    private const int NamedUnits = 8;

    private readonly Dictionary<int, string[]> newest = [];
    private readonly Lock gate = new();
    private Process? process;
    private bool started;

    /// <summary>Those of the known commands that are installed; none in a confined process, which could not start them.</summary>
    public static IEnumerable<GraphicsCommand> Installed(int firstIndex) => IsConfined ? []
        : Known.Where(command => IsInstalled(command[0])).Select(command => new GraphicsCommand(command, firstIndex));

    /// <summary>Units are known only once the command runs; this many are named beforehand.</summary>
    public IReadOnlyList<LoadSource> Sources =>
        [
            .. Enumerable
                .Range(0, NamedUnits)
                .Select(unit => new LoadSource(LoadKind.GraphicsBusy, firstIndex + unit, $"unit {unit} of {command[0]}")),
        ];

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        if (!started)
        {
            started = true;
            Start();
        }

        lock (gate)
        {
            foreach (var (unit, fields) in newest)
            {
                Add(LoadKind.GraphicsBusy, 1, 0.01);
                Add(LoadKind.MediaEngineBusy, 2, 0.01);
                Add(LoadKind.GraphicsMemoryUsed, 3, 1024 * 1024);
                Add(LoadKind.GraphicsPower, 4, 1);
                Add(LoadKind.GraphicsTemperature, 5, 1);

                void Add(LoadKind kind, int column, double factor)
                {
                    // What a unit does not measure the command writes as words.
                    if (double.TryParse(fields[column], NumberStyles.Float, CultureInfo.InvariantCulture, out var value))
                    {
                        into.Add(new LoadReading(at, kind, firstIndex + unit, (float)(value * factor)));
                    }
                }
            }
        }
    }

    public void Dispose()
    {
        if (process is { HasExited: false })
        {
            process.Kill();
        }

        process?.Dispose();
    }

    private void Start()
    {
        var start = new ProcessStartInfo(command[0]) { RedirectStandardOutput = true, RedirectStandardError = true };
        command.Skip(1).ToList().ForEach(start.ArgumentList.Add);
        try
        {
            process = Process.Start(start)!;
        }
        catch (System.ComponentModel.Win32Exception)
        {
            // Not installed, or not for us: then it tells nothing.
            return;
        }

        process.OutputDataReceived += (_, line) => Take(line.Data);
        process.BeginOutputReadLine();
        process.BeginErrorReadLine();
    }

    private void Take(string? line)
    {
        var fields = line?.Split(',', StringSplitOptions.TrimEntries) ?? [];
        lock (gate)
        {
            if (line is null)
            {
                // The command has ended; old figures must not go on being told.
                newest.Clear();
            }
            else if (fields.Length == 6 && int.TryParse(fields[0], NumberStyles.None, CultureInfo.InvariantCulture, out var unit))
            {
                newest[unit] = fields;
            }
        }
    }

    private static bool IsInstalled(string name) => (Environment.GetEnvironmentVariable("PATH") ?? string.Empty)
        .Split(Path.PathSeparator, StringSplitOptions.RemoveEmptyEntries).Any(folder => File.Exists(Path.Combine(folder, name)));
}
