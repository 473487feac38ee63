using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>What each slot showed, a letter each: o its own frame on time, l its own frame late, v an overdue frame, d no new
/// picture.</summary>
/// <param name="rate">Of the timeline.</param>
public sealed class CombTeeth(FrameRate rate)
{
    /// <summary>Slots that show an overdue frame and were not written yet, ascending.</summary>
    private readonly Queue<long> withOverdue = new();

    public static string Of(IReadOnlyList<FrameRecord> frames, FrameRate rate) => new CombTeeth(rate).Next(frames);

    /// <param name="frames">In order, after those of the call before.</param>
    public string Next(IReadOnlyList<FrameRecord> frames) => string.Create(frames.Count, frames, (teeth, frames) =>
    {
        for (var place = 0; place < teeth.Length; place++)
        {
            teeth[place] = Letter(frames[place]);
        }
    });

    private char Letter(FrameRecord frame)
    {
        var showsOverdue = false;
        while (withOverdue.TryPeek(out var slot) && slot <= frame.Frame)
        {
            withOverdue.Dequeue();
            showsOverdue |= slot == frame.Frame;
        }

        if (frame is { Status: FrameStatus.Overdue, Shown: { } shown })
        {
            withOverdue.Enqueue(frame.Frame + (long)((shown - frame.SlotStart) / rate.FrameDuration));
        }

        return frame.Status switch { FrameStatus.OnTime => 'o', FrameStatus.Late => 'l', _ => showsOverdue ? 'v' : 'd' };
    }
}
