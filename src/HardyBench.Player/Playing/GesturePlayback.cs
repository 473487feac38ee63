using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Player.Effects;

namespace HardyBench.Player.Playing;

/// <summary>Scrubs: drags, jumps, starts playing; and records how long each picture took. Runs on one thread.</summary>
/// <param name="playFrom">Plays so many frames from one on; returns how long it took until the picture moved, or null when it never
/// did.</param>
public sealed class GesturePlayback(
    PlaybackPlan plan, RunClock run, IScreen screen, IClipFiles files, PassageGraph graph, int threads, RunJournal journal,
    Func<long, int, CancellationToken, TimeSpan?> playFrom) : IDisposable
{
    /// <summary>Between two jumps, so that one is over before the next begins.</summary>
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(20);

    /// <summary>So many that they fill the look-ahead and the picture is seen to move.</summary>
    private const int FramesToStart = 12;

    private readonly HashSet<int> failed = [];
    private GesturePassage? at;

    public void Carry(IReadOnlyList<Gesture> moves, CancellationToken stop)
    {
        foreach (var move in moves)
        {
            if (move.Every == TimeSpan.Zero)
            {
                OneByOne(move, stop);
            }
            else
            {
                Drag(move, stop);
            }
        }
    }

    public void Dispose() => Leave();

    private void OneByOne(Gesture move, CancellationToken stop)
    {
        foreach (var frame in move.Frames)
        {
            if (stop.IsCancellationRequested)
            {
                return;
            }

            var asked = run.Now;
            var lag = move.Kind == GestureKind.Start ? Start(frame, stop) : Show(frame) ? run.Now - asked : (TimeSpan?)null;
            journal.Asked(new LagReading(move.Kind, move.Name, (int)frame, asked, lag));
            stop.WaitHandle.WaitOne(Pause);
        }
    }

    /// <summary>Only the newest place is worked on; those that came while another was worked on are passed over.</summary>
    private void Drag(Gesture move, CancellationToken stop)
    {
        var begun = run.Now;
        for (var next = 0; next < move.Frames.Count && !stop.IsCancellationRequested;)
        {
            var newest = (int)Math.Min((run.Now - begun) / move.Every, move.Frames.Count - 1);
            if (newest < next)
            {
                run.WaitUntil(begun + move.Every * next, stop);
                continue;
            }

            for (; next < newest; next++)
            {
                Note(next, null);
            }

            Note(next, Show(move.Frames[next]) ? run.Now - begun - move.Every * next : null);
            next++;
        }

        void Note(int place, TimeSpan? lag) =>
            journal.Asked(new LagReading(move.Kind, move.Name, (int)move.Frames[place], begun + move.Every * place, lag));
    }

    private TimeSpan? Start(long frame, CancellationToken stop)
    {
        Leave();
        return playFrom(frame, FramesToStart, stop);
    }

    /// <summary>Closes the passage it is in, and notes what went wrong there without ending it.</summary>
    private void Leave()
    {
        foreach (var words in at?.Overcome ?? [])
        {
            journal.Fail(new PassageFailure(at!.Index, words, Overcome: true));
        }

        at?.Dispose();
        at = null;
    }

    /// <summary>Brings a frame on screen; false when that cannot be.</summary>
    private bool Show(long frame)
    {
        var index = plan.Timeline.PassageIndexAt(frame);
        try
        {
            if (at?.Index != index)
            {
                Leave();
                at = new GesturePassage(plan, index, files, graph, threads);
            }

            using var picture = at.Picture(frame - plan.Timeline.StartOf(index));
            if (picture is not null)
            {
                screen.Show(frame, picture);
            }

            return picture is not null;
        }
        catch (Exception failure)
        {
            if (failed.Add(index))
            {
                journal.Fail(PassageFailures.Of(index, failure));
            }

            return false;
        }
    }
}
