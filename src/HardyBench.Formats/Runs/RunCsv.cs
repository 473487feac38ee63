using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Formats.Files;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Runs;

/// <summary>Frames, loads and lags of a run as comma-separated text with a head line (RFC 4180), times in milliseconds from
/// the key. What does not apply is empty.</summary>
public static class RunCsv
{
    /// <summary>A line a slot; the marks of a slot stand in its last column.</summary>
    public static string Frames(Run run, IReadOnlyList<RunMark> marks)
    {
        var byFrame = marks.Where(mark => mark.Frame is not null).ToLookup(mark => mark.Frame!.Value);
        return CsvText.Of(run.Frames.Select(frame => new
        {
            frame = frame.Frame,
            timecode = Timecode.Of(frame.Frame, run.Header.Timeline.Rate),
            passage = run.Header.Timeline.PassageIndexAt(frame.Frame) + 1,
            slot_start_ms = Ms(frame.SlotStart),
            ready_ms = Ms(frame.Ready),
            shown_ms = Ms(frame.Shown),
            status = BenchJson.Name(frame.Status),
            reason = BenchJson.Name(frame.Reason),
            read_ms = Ms(frame.Read),
            decode_ms = Ms(frame.Decode),
            effects_ms = Ms(frame.Effects),
            wait_ms = Ms(frame.Wait),
            queue = frame.QueueDepth,
            scale = BenchJson.Name(frame.Scale),
            marks = string.Join(
                "; ",
                byFrame[frame.Frame]
                    .Select(mark => mark.Text.Length > 0 ? $"{BenchJson.Name(mark.Kind)}: {mark.Text}" : BenchJson.Name(mark.Kind))
            ),
        }));
    }

    public static string Loads(Run run) => CsvText.Of(run.Loads.Select(load => new
    {
        at_ms = Ms(load.At), load = BenchJson.Name(load.Kind), index = load.Index, value = load.Value,
    }));

    public static string Lags(Run run) => CsvText.Of(run.Lags.Select(lag => new
    {
        kind = BenchJson.Name(lag.Kind), gesture = lag.Name, frame = lag.Frame, asked_ms = Ms(lag.AskedAt), lag_ms = Ms(lag.Lag),
    }));

    private static double? Ms(TimeSpan? time) => time is { } known ? Math.Round(known.TotalMilliseconds, 3) : null;
}
