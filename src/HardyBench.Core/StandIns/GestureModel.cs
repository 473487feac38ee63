using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;

namespace HardyBench.Core.StandIns;

/// <summary>How long a stand-in takes to show a requested frame: it reads and decodes from the frame that stands alone
/// up to the one asked for, (G + 1) / 2 frames on average in a GOP of G and G at worst, then treats that one.</summary>
public sealed class GestureModel(PlaybackPlan plan, IReadOnlyList<PassageDemand> demands, ServiceSpread spread)
{
    /// <summary>Opening files and decoders again before playing; made up, as a real run's are on a quiet machine.</summary>
    private static readonly TimeSpan Opening = TimeSpan.FromMilliseconds(30);

    private long? shown;

    /// <summary>Carries the moves out one after another.</summary>
    public IReadOnlyList<LagReading> Carry(IReadOnlyList<Gesture> moves)
    {
        var (now, lags) = (TimeSpan.Zero, new List<LagReading>());
        foreach (var move in moves)
        {
            now = move.Every == TimeSpan.Zero ? OneByOne(move, now, lags) : Dragged(move, now, lags);
        }

        return lags;
    }

    /// <summary>The longest wait for a frame of a passage, without spread: for the last one before decoding could begin
    /// afresh.</summary>
    /// <param name="counts">Stations that are looked at; null for all.</param>
    public static TimeSpan LongestReach(PassageDemand demand, Func<Station, bool>? counts = null)
    {
        var last = Math.Min(demand.KeyInterval, demand.FrameCount) - 1;
        return demand.Visits.Where(visit => counts?.Invoke(visit.Station) != false)
            .Aggregate(TimeSpan.Zero, (sum, visit) => sum + Spent(visit, 0, last, demand.KeyInterval, (service, _) => service));
    }

    /// <summary>The longest wait of all, when the wait for a frame is so long.</summary>
    public static GestureWait WaitOf(TimeSpan reach) => new(Opening + reach, reach);

    private TimeSpan OneByOne(Gesture move, TimeSpan now, List<LagReading> lags)
    {
        foreach (var frame in move.Frames)
        {
            var lag = move.Kind == GestureKind.Start ? StartUp(frame) : Reach(frame);
            lags.Add(new LagReading(move.Kind, move.Name, (int)frame, now, lag));
            now += lag;
        }

        return now;
    }

    /// <summary>Only the newest place is worked on; those that came while another was worked on are passed over.</summary>
    private TimeSpan Dragged(Gesture move, TimeSpan begun, List<LagReading> lags)
    {
        var free = begun;
        for (var i = 0; i < move.Frames.Count; i++)
        {
            var asked = begun + move.Every * i;
            var nextAsked = begun + move.Every * (i + 1);
            if (nextAsked <= free && i < move.Frames.Count - 1)
            {
                lags.Add(new LagReading(move.Kind, move.Name, (int)move.Frames[i], asked, null));
                continue;
            }

            var done = (free > asked ? free : asked) + Reach(move.Frames[i]);
            lags.Add(new LagReading(move.Kind, move.Name, (int)move.Frames[i], asked, done - asked));
            free = done;
        }

        return free;
    }

    private TimeSpan StartUp(long frame)
    {
        shown = null;
        return Opening + Reach(frame);
    }

    private TimeSpan Reach(long frame)
    {
        var index = plan.Timeline.PassageIndexAt(frame);
        var (start, interval) = (plan.Timeline.StartOf(index), demands[index].KeyInterval);
        var position = frame - start;
        var from = position / interval * interval;
        // Going on from the picture on screen is nearer than the frame that stands alone.
        if (shown is { } at && plan.Timeline.PassageIndexAt(at) == index && at - start < position && at - start >= from)
        {
            from = at - start + 1;
        }

        shown = frame;
        var lag = TimeSpan.Zero;
        foreach (var visit in demands[index].Visits)
        {
            lag += Spent(
                visit, from, position, interval, (mean, place) => spread.Draw(mean, index, (int)place, visit.Station, visit.Kind));
        }

        return lag;
    }

    /// <summary>Every frame on the way is read and decoded, only the last one is treated.</summary>
    private static TimeSpan Spent(Visit visit, long from, long position, long interval, Func<TimeSpan, long, TimeSpan> draw)
    {
        var sum = TimeSpan.Zero;
        for (var place = visit.Kind == VisitKind.Effects ? position : from; place <= position; place++)
        {
            sum += draw(visit.Service[visit.Service.Count == 1 ? 0 : (int)(place % interval % visit.Service.Count)], place);
        }

        return sum;
    }
}
