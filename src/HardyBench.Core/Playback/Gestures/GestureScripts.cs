using HardyBench.Core.Timelines;

namespace HardyBench.Core.Playback.Gestures;

/// <summary>Generates the requests of scrubbing, the same every time, so that machines can be compared.</summary>
public static class GestureScripts
{
    /// <summary>How often dragging requests another place. Common practice, no source: about as often as a
    /// pointer moves on a screen of 60 pictures a second, every other time.</summary>
    public static readonly TimeSpan DragPace = TimeSpan.FromMilliseconds(33);

    private const int Seed = 20, JumpsOfEach = 6;

    /// <summary>How fast dragging is compared with playing; negative is backwards.</summary>
    private static readonly int[] Speeds = [2, 8, -2];

    /// <summary>How far jumps go, in frames at most; the last is anywhere in the passage.</summary>
    private static readonly (string Name, int Reach)[] Distances = [("to a near frame", 12), ("to a far frame", int.MaxValue)];

    /// <summary>Drags through every passage at several speeds, forwards and back, then jumps about in it, near and far.</summary>
    public static IReadOnlyList<Gesture> Scrub(Timeline timeline)
    {
        var random = new Random(Seed);
        return [.. timeline.Passages.SelectMany((passage, index) => OfPassage(timeline, passage, timeline.StartOf(index), random))];
    }

    /// <summary>Starts playing at several places of every passage.</summary>
    /// <param name="times">Places a passage, at least 1.</param>
    public static IReadOnlyList<Gesture> Starts(Timeline timeline, int times) =>
    [
        .. timeline.Passages.Select((passage, index) => new Gesture(
            GestureKind.Start,
            "play pressed",
            [.. Enumerable.Range(0, times).Select(i => timeline.StartOf(index) + (passage.FrameCount - 1L) * i / times)],
            TimeSpan.Zero)),
    ];

    private static IEnumerable<Gesture> OfPassage(Timeline timeline, Passage passage, long start, Random random)
    {
        foreach (var speed in Speeds)
        {
            var step = Math.Max(1, (int)Math.Round(timeline.Rate.FramesPerSecond * DragPace.TotalSeconds * Math.Abs(speed)));
            var places = Enumerable.Range(0, (passage.FrameCount - 1) / step + 1).Select(i => (long)i * step).ToList();
            yield return new Gesture(
                GestureKind.Sweep,
                speed > 0 ? $"dragged at {speed} times the speed" : $"dragged back at {-speed} times the speed",
                [.. (speed > 0 ? places : Enumerable.Reverse(places)).Select(place => start + place)],
                DragPace);
        }

        var at = 0;
        foreach (var (name, reach) in Distances)
        {
            var places = new List<long>();
            for (var i = 0; i < JumpsOfEach; i++)
            {
                var (low, high) = (Math.Max(0L, (long)at - reach), Math.Min(passage.FrameCount, (long)at + reach + 1));
                var next = (int)random.NextInt64(low, high);
                at = next == at ? (next + 1) % passage.FrameCount : next;
                places.Add(start + at);
            }

            yield return new Gesture(GestureKind.Jump, name, places, TimeSpan.Zero);
        }
    }
}
