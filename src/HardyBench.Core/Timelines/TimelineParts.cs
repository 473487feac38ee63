using HardyBench.Core.Footage;

namespace HardyBench.Core.Timelines;

/// <summary>Timelines made from a timeline, for tests that ask about a part of it or change one thing.</summary>
public static class TimelineParts
{
    /// <summary>One passage alone.</summary>
    public static Timeline Only(this Timeline timeline, int index) => timeline with { Passages = [timeline.Passages[index]], Marks = null };

    /// <summary>What is left from a frame on, at most <paramref name="frames"/> long: the very frames that the whole shows there.</summary>
    /// <exception cref="ArgumentOutOfRangeException">The frame lies outside the timeline.</exception>
    public static Timeline From(this Timeline timeline, long frame, int frames)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(frame);
        ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual(frame, timeline.FrameCount);
        var (passages, start) = (new List<Passage>(), 0L);
        foreach (var passage in timeline.Passages)
        {
            var skipped = (int)Math.Max(0, frame - start);
            var wanted = Math.Min(passage.FrameCount - skipped, frames - passages.Sum(taken => taken.FrameCount));
            start += passage.FrameCount;
            if (skipped < passage.FrameCount && wanted > 0)
            {
                passages.Add(passage.Part(skipped, wanted));
            }
        }

        return timeline with { Passages = passages, Marks = null };
    }

    /// <summary>The very same pictures at half the rate: every slot is twice as long, every layer runs half as fast.</summary>
    public static Timeline AtHalfRate(this Timeline timeline) => timeline with
    {
        Rate = new FrameRate(timeline.Rate.Numerator, timeline.Rate.Denominator * 2),
        Passages = [.. timeline.Passages.Select(passage => passage with { Layers = [.. passage.Layers.Select(HalfAsFast)] })],
        Marks = null,
    };

    /// <summary>Without an effect, wherever it stands.</summary>
    public static Timeline Without(this Timeline timeline, string effectId) => timeline with
    {
        Passages =
        [
            .. timeline.Passages.Select(passage => passage with
            {
                Layers =
                [
                    .. passage.Layers.Select(layer =>
                        layer with
                        {
                            Effects = [.. layer.Effects.Where(effect => effect.Id != effectId)],
                        }
                    ),
                ],
                Over = [.. passage.Over.Where(effect => effect.Id != effectId)],
            }),
        ],
    };

    private static Layer HalfAsFast(Layer layer)
    {
        var retime = layer.Retime ?? new Retime(1);
        return layer with { Retime = retime with { Speed = retime.Speed / 2 } };
    }

    /// <summary>So many frames of a passage from one on. The footage goes on where it would have been; a transition starts again.</summary>
    internal static Passage Part(this Passage passage, int from, int frames) => passage with
    {
        FrameCount = frames,
        Layers = from == 0 ? passage.Layers : [.. passage.Layers.Select(layer => layer with { Skipped = layer.Skipped + from })],
    };
}
