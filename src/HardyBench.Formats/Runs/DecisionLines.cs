using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Decisions;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Runs;

/// <summary>The decision log of a run as JSON lines: a first line that says which run it is of, then one line a decision, in the order of
/// time. Times are seconds. docs/formats.md describes the members.</summary>
public static class DecisionLines
{
    private const string Kind = "hardybench decisions";
    private const int Version = 1;

    private static readonly JsonSerializerOptions Options = new(BenchJson.Options)
    {
        WriteIndented = false,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    };

    public static byte[] Write(long run, RunHeader header, IEnumerable<Decision> decisions)
    {
        var text = new StringBuilder();
        Append(text, new FirstLine(Kind, Version, run, header.StartedAt));
        foreach (var decision in decisions.OrderBy(one => one.At))
        {
            Append(text, DecisionLine.Of(decision));
        }

        return Encoding.UTF8.GetBytes(text.ToString());
    }

    /// <summary>Reads the log of one run.</summary>
    /// <exception cref="FormatException">It is none, is of another run, or a line cannot be read; the message names the line.</exception>
    public static IReadOnlyList<Decision> Read(byte[] file, long run, RunHeader header)
    {
        var lines = Encoding.UTF8.GetString(file).Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
        var first = lines.Length == 0 ? null : Line<FirstLine>(lines, 0);
        if (first?.Kind != Kind)
        {
            throw new FormatException("This is not a decision log: its first line does not say so. Write one with 'play --decisions FILE'.");
        }

        if (first.Version > Version)
        {
            throw new FormatException($"This decision log has format {first.Version}; formats up to {Version} can be read here.");
        }

        return (first.Run, first.StartedAt) == (run, header.StartedAt)
            ? [.. Enumerable.Range(1, lines.Length - 1).Select(index => Line<DecisionLine>(lines, index).ToDecision())]
            : throw new FormatException($"This decision log is of run {first.Run}, started at {first.StartedAt:u}, not of run {run}.");
    }

    private static void Append<T>(StringBuilder text, T line) => text.Append(JsonSerializer.Serialize(line, Options)).Append('\n');

    private static T Line<T>(string[] lines, int index)
        where T : class
    {
        try
        {
            return JsonSerializer.Deserialize<T>(lines[index], Options) ?? throw new JsonException("It is empty.");
        }
        catch (JsonException broken)
        {
            throw new FormatException($"Line {index + 1} of the decision log cannot be read: {broken.Message}", broken);
        }
    }

    private sealed record FirstLine(string? Kind, int Version, long Run, DateTimeOffset StartedAt);

    /// <param name="At">Seconds from the key.</param>
    /// <param name="SlotStart">Seconds from the key; of a choice, like all that follow.</param>
    private sealed record DecisionLine(
        double At, DecisionAct Act, long Frame, DropReason? Reason, FrameStatus? Status,
        double? SlotStart, double? Expected, double? Decoding, double? Effects, int? Undecoded, int? BeforeEffects)
    {
        public static DecisionLine Of(Decision one) => new(
            one.At.TotalSeconds, one.Act, one.Frame, one.Reason, one.Status,
            one.Basis?.SlotStart?.TotalSeconds, one.Basis?.Expected.TotalSeconds, one.Basis?.Decoding.TotalSeconds,
            one.Basis?.Effects.TotalSeconds, one.Basis?.Undecoded, one.Basis?.BeforeEffects);

        public Decision ToDecision() => new(Time(At), Act, Frame)
        {
            Reason = Reason,
            Status = Status,
            Basis = Expected is null ? null : new ChoiceBasis(
                SlotStart is { } start ? Time(start) : null, Time(Expected.Value), Time(Decoding ?? 0), Time(Effects ?? 0),
                Undecoded ?? 0, BeforeEffects ?? 0),
        };

        private static TimeSpan Time(double seconds) =>
            new((long)Math.Round(Math.Clamp(seconds, -LongestTime, LongestTime) * TimeSpan.TicksPerSecond));

        /// <summary>Ten years: longer than anything plays, short enough to be added and subtracted.</summary>
        private const double LongestTime = 315_000_000;
    }
}
