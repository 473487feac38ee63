using System.Diagnostics;
using System.Globalization;

namespace HardyBench.Benchmarks;

/// <summary>What is measured failed, so there is no figure.</summary>
internal sealed class MeasuringException(string message) : Exception(message);

/// <summary>A process of its own that is measured. Where it fails, measuring fails: a figure of what did not run is worse than
/// none.</summary>
/// <param name="Output">What it wrote.</param>
/// <param name="PeakMegabytes">Its peak memory, read from the kernel while it lived.</param>
internal sealed record MeasuredProcess(string Output, TimeSpan Took, double PeakMegabytes)
{
    /// <exception cref="MeasuringException">It cannot be started, or ended with an error.</exception>
    public static MeasuredProcess Run(string command, params string[] arguments)
    {
        var began = Stopwatch.GetTimestamp();
        using var process = Start(command, arguments);
        var (told, complained) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
        var peak = 0.0;
        while (!process.WaitForExit(20))
        {
            peak = Math.Max(peak, PeakOf(process.Id));
        }

        return process.ExitCode == 0
            ? new MeasuredProcess(told.Result, Stopwatch.GetElapsedTime(began), peak)
            : throw new MeasuringException(
                $"What was to be measured failed with exit code {process.ExitCode}: {command} "
                    + $"{string.Join(' ', arguments)}\n{complained.Result.Trim()}"
            );
    }

    /// <summary>This very program again, with other arguments.</summary>
    public static MeasuredProcess Again(params string[] arguments) =>
        // Started by the framework's own program, or as a program of its own; the second takes no path of the assembly.
        Path.GetFileNameWithoutExtension(Environment.ProcessPath) == "dotnet"
            ? Run(Environment.ProcessPath!, [typeof(MeasuredProcess).Assembly.Location, .. arguments])
            : Run(Environment.ProcessPath!, arguments);

    private static Process Start(string command, string[] arguments)
    {
        try
        {
            return Process.Start(new ProcessStartInfo(command, arguments) { RedirectStandardOutput = true, RedirectStandardError = true })!;
        }
        catch (System.ComponentModel.Win32Exception missing)
        {
            throw new MeasuringException($"What was to be measured cannot be started: {command}: {missing.Message}");
        }
    }

    public static double PeakOf(int process)
    {
        try
        {
            var line = File.ReadLines($"/proc/{process}/status")
                .FirstOrDefault(line => line.StartsWith("VmHWM:", StringComparison.Ordinal));
            return line is null
                ? 0
                : double.Parse(line.Split(' ', StringSplitOptions.RemoveEmptyEntries)[1], CultureInfo.InvariantCulture) * 1024 / 1e6;
        }
        catch (IOException)
        {
            return 0;
        }
    }
}
