using HardyBench.Core.Footage;

namespace HardyBench.Core.Timelines.Imports;

/// <summary>Cuts an imported timeline into passages: wherever its stack changes, a new one begins.</summary>
public static class StackCutter
{
    /// <param name="raster">For timelines that do not say theirs.</param>
    /// <param name="clipFor">The clip that stands for a piece of footage; layers without one keep the footage's key.</param>
    /// <returns>The timeline, and what could not be carried over: sentences.</returns>
    /// <exception cref="TimelineRefusedException">It has more passages, or more layers at once, than can be worked with.</exception>
    /// <exception cref="OperationCanceledException">Nobody waits for it any more.</exception>
    public static (Timeline Timeline, IReadOnlyList<string> Notes) Cut(
        ImportedTimeline imported, string id, Raster raster, Func<ImportedMedia, Clip?> clipFor, CancellationToken stop = default)
    {
        var media = imported.Media.ToDictionary(one => one.Key);
        var clips = imported.Media.ToDictionary(one => one.Key, clipFor);
        var (passages, notes) = (new List<Passage>(), new List<string>(imported.Notes));
        var moved = new List<(long From, long Gap)>();
        var told = new HashSet<string>();
        foreach (var (from, to, items) in Stretches(imported.Items))
        {
            stop.ThrowIfCancellationRequested();
            if (passages.Count == TimelineLimits.MaxPassages || items.Count > TimelineLimits.MaxLayersInPassage)
            {
                throw new TimelineRefusedException(passages.Count == TimelineLimits.MaxPassages
                    ? $"It makes more than {TimelineLimits.MaxPassages} passages, the most that a sheet can show. Nothing was saved. Split it "
                        + "in the program it comes from, and import the parts."
                    : $"At {Timecode.Of(from, imported.Rate)} {items.Count} clips overlap; up to "
                        + $"{TimelineLimits.MaxLayersInPassage} layers can be played. Nothing was saved. Remove layers in the program it comes from.");
            }

            if (items.Count == 0)
            {
                notes.Add($"{to - from} frames from {Timecode.Of(from, imported.Rate)} on are empty and were left out.");
                moved.Add((from, to - from));
                continue;
            }

            var coming = items.FirstOrDefault(item => item.Transition is not null && from < item.Start + item.TransitionLength);
            if (coming is not null && items.Count != 2)
            {
                var kind = coming.Transition.ToString()!.ToLowerInvariant();
                notes.Add(items.Count == 1
                    ? $"A {kind} at {Timecode.Of(from, imported.Rate)} has no clip before it; the footage is played whole, with a cut."
                    : $"A {kind} at {Timecode.Of(from, imported.Rate)} is among {items.Count} layers; they were imported, it was not.");
            }

            passages.Add(new Passage(
                items[^1].StackName ?? string.Join(" over ", items.Select(item => media[item.MediaKey].Name).Reverse().Distinct()),
                (int)(to - from),
                [.. items.Select(item => LayerOf(item, from, imported.Rate, clips[item.MediaKey], notes, told))],
                [.. items.SelectMany(item => item.Over).Distinct()],
                items.Count == 2 ? coming?.Transition : null));
        }

        IReadOnlyList<TimelineMark>? marks = imported.Marks.Count == 0
            ? null
            :
            [
                .. imported.Marks.Select(mark =>
                    mark with
                    {
                        Frame =
                            mark.Frame - moved.Where(gap => gap.From < mark.Frame).Sum(gap => Math.Min(gap.Gap, mark.Frame - gap.From)),
                    }
                ),
            ];
        return (
            new Timeline(
                id,
                imported.Title,
                imported.Raster ?? raster,
                imported.Rate,
                passages,
                imported.BitDepth,
                marks,
                Metadata: imported.Metadata
            )
            {
                About = imported.About,
            },
            notes
        );
    }

    private static Layer LayerOf(
        TrackItem item, long from, FrameRate rate, Clip? clip, List<string> notes, HashSet<string> told)
    {
        var source = clip?.Format.Rate ?? rate;
        var start = FirstFrame(item, source, clip, notes, told) + rate.SourceFrameFor(from - item.Start, source, item.Retime?.Speed ?? 1);
        return new Layer(clip?.Id ?? item.MediaKey, item.Effects, (int)Math.Min(start, int.MaxValue), item.Retime, item.Metadata)
        {
            Opacity = item.Opacity,
        };
    }

    /// <summary>The frame of the clip on which an item begins. Lists and references often count by the timecode that the camera wrote:
    /// where the clip has one, it is taken off.</summary>
    private static int FirstFrame(TrackItem item, FrameRate source, Clip? clip, List<string> notes, HashSet<string> told)
    {
        var frame = item.MediaStart.FramesAt(source);
        if (clip is { FrameCount: 1 })
        {
            // A still has one picture, wherever it is entered.
            return 0;
        }

        if (clip is null || clip.FrameCount == 0 || frame < clip.FrameCount || item.MediaStart.IsCounted)
        {
            return frame;
        }

        if (
            clip.Track?.Timecode is { } first
            && FrameOf(first, source) is { } begins
            && frame - begins is >= 0 and var within
            && within < clip.FrameCount
        )
        {
            return (int)within;
        }

        var note =
            $"'{clip.Id}' is used from frame {frame} on and has {clip.FrameCount} frames, and its first timecode is unknown; it loops "
                + $"and begins on frame {Looping.FrameOf(frame, clip.FrameCount)}.";
        if (told.Add(note))
        {
            notes.Add(note);
        }

        return (int)Looping.FrameOf(frame, clip.FrameCount);
    }

    private static long? FrameOf(string timecode, FrameRate rate)
    {
        try
        {
            return Timecode.Parse(timecode, rate);
        }
        catch (FormatException)
        {
            return null;
        }
    }

    /// <summary>Stretches without a change, in order, each with what lies in it, bottom first. One pass over the edges, so that
    /// thousands of items cost no more than sorting them.</summary>
    private static IEnumerable<(long From, long To, List<TrackItem> Items)> Stretches(IReadOnlyList<TrackItem> items)
    {
        var edges = new SortedSet<long> { 0 };
        foreach (var item in items)
        {
            edges.UnionWith([item.Start, item.End]);
            if (item.Transition is not null)
            {
                edges.Add(item.Start + item.TransitionLength);
            }
        }

        var waiting = new Queue<TrackItem>(items.OrderBy(item => item.Start));
        var lying = new List<TrackItem>();
        foreach (var (from, to) in edges.Zip(edges.Skip(1)))
        {
            lying.RemoveAll(item => item.End <= from);
            while (waiting.TryPeek(out var next) && next.Start <= from)
            {
                lying.Add(waiting.Dequeue());
            }

            // So many at once are refused, and need not be put in order.
            yield return lying.Count > TimelineLimits.MaxLayersInPassage
                ? (from, to, lying)
                : (from, to, [.. lying.OrderBy(item => item.Order).ThenBy(item => item.Start)]);
        }
    }
}
