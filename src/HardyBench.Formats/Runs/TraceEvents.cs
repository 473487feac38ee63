using System.Text.Json;
using System.Text.Json.Serialization;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Runs;

/// <summary>A run in the Trace Event format, JSON object form, which many open trace viewers read: a lane for each stage
/// of a frame's way, counters for loads, instants for drops and marks. Times are microseconds from the key. Read by
/// "Trace Event Format", the Chromium project's public description.</summary>
public static class TraceEvents
{
    private const int Process = 1, Slots = 1, Decoding = 2, Effects = 3, Waiting = 4, Hand = 5;

    private static readonly JsonSerializerOptions Options = new() { DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull };

    /// <summary>UTF-8 JSON.</summary>
    public static byte[] Write(Run run, IReadOnlyList<RunMark> marks) => JsonSerializer.SerializeToUtf8Bytes(
        new { traceEvents = All(run, marks), displayTimeUnit = "ms" }, Options);

    private static IEnumerable<Event> All(Run run, IReadOnlyList<RunMark> marks)
    {
        var timeline = run.Header.Timeline;
        yield return Name("process_name", 0, $"{timeline.Title} on {run.Header.Machine.Name}");
        foreach (
            var (lane, name) in new[]
            {
                (Slots, "slots"),
                (Decoding, "decode"),
                (Effects, "effects"),
                (Waiting, "waiting for the slot"),
                (Hand, "requested by scrubbing"),
            }
        )
        {
            yield return Name("thread_name", lane, name);
        }

        foreach (var frame in run.Frames)
        {
            foreach (var one in OfFrame(frame, timeline))
            {
                yield return one;
            }
        }

        foreach (var lag in run.Lags)
        {
            yield return new Event(
                lag.Name,
                lag.Lag is null ? "i" : "X",
                Micro(lag.AskedAt),
                Hand,
                lag.Lag is { } took ? Micro(took) : null,
                new { frame = lag.Frame }
            );
        }

        foreach (var load in run.Loads)
        {
            yield return new Event($"{BenchJson.Name(load.Kind)} {load.Index}", "C", Micro(load.At), 0, null, new { value = load.Value });
        }

        foreach (var mark in marks)
        {
            yield return new Event(
                mark.Text.Length > 0 ? mark.Text : BenchJson.Name(mark.Kind),
                "i",
                Micro(mark.At),
                Slots,
                null,
                new { kind = BenchJson.Name(mark.Kind), frame = mark.Frame }
            );
        }
    }

    private static IEnumerable<Event> OfFrame(FrameRecord frame, Timeline timeline)
    {
        var about = new
        {
            frame = frame.Frame,
            timecode = Timecode.Of(frame.Frame, timeline.Rate),
            status = BenchJson.Name(frame.Status),
            reason = BenchJson.Name(frame.Reason),
        };
        yield return new Event(BenchJson.Name(frame.Status), "X", Micro(frame.SlotStart), Slots, Micro(timeline.Rate.FrameDuration), about);
        if (frame.Ready is not { } ready)
        {
            yield break;
        }

        yield return new Event("effects", "X", Micro(ready - frame.Effects), Effects, Micro(frame.Effects), about);
        yield return new Event("decode", "X", Micro(ready - frame.Effects - frame.Decode), Decoding, Micro(frame.Decode), about);
        if (frame.Shown is { } shown)
        {
            yield return new Event("waiting", "X", Micro(ready), Waiting, Micro(shown - ready), about);
        }
    }

    private static Event Name(string what, int lane, string name) => new(what, "M", 0, lane, null, new { name });

    private static double Micro(TimeSpan time) => time.TotalMicroseconds;

    /// <summary>One event; members as the format names them.</summary>
    private sealed record Event(
        [property: JsonPropertyName("name")] string Name,
        [property: JsonPropertyName("ph")] string Phase,
        [property: JsonPropertyName("ts")] double At,
        [property: JsonPropertyName("tid")] int Lane,
        [property: JsonPropertyName("dur")] double? Length,
        [property: JsonPropertyName("args")] object Arguments)
    {
        [JsonPropertyName("pid")]
        public int ProcessNumber { get; init; } = Process;
    }
}
