using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Decisions;
using HardyBench.Core.Timelines;
using HardyBench.Player.Course;
using HardyBench.Player.Decoding;
using HardyBench.Player.Effects;

namespace HardyBench.Player.Playing;

/// <summary>Takes decoded frames through their effects, passage after passage, skipping what could not be seen.
/// Runs on one thread.</summary>
public sealed class Treating(
    PlaybackPlan plan, RunClock run, TreatedSlots slots, IClipFiles files, PassageGraph graph, int threads, RunJournal journal)
{
    /// <summary>How long before a cut the next passage decodes on from its first frame.</summary>
    private static readonly TimeSpan GoOnAhead = TimeSpan.FromSeconds(1);

    private readonly ScaleStepper? stepper = plan.Settings.AutomaticScale
        ? new ScaleStepper(plan.Settings.Scale, plan.Timeline.Rate)
        : null;
    private readonly bool keepsTime = plan.Settings.Policy == PlayingPolicy.KeepTime;
    private readonly List<Task> retired = [];
    private Opening? next;
    private bool isFirstDone;

    public void Treat(CancellationToken stop)
    {
        for (var index = 0; index < plan.Timeline.Passages.Count && !stop.IsCancellationRequested; index++)
        {
            var passage = plan.Timeline.Passages[index];
            var start = plan.Timeline.StartOf(index);
            var done = isFirstDone ? 0L : -1;
            isFirstDone = false;
            try
            {
                // Taken first: should it fail, the passage after it must not be lost with it.
                var opening = next ?? Open(index);
                next = null;
                opening.Course.GoOn();
                var pipeline = opening.Pipeline.GetAwaiter().GetResult();
                using var retiring = new RunOnDispose(() => Retire(pipeline, index));
                using var stopping = stop.Register(pipeline.Course.Close);
                while (slots.WaitForRoom() && pipeline.Course.Take(done) is { } position)
                {
                    PassOver(pipeline, start, done + 1, position, pipeline.Course.ReasonBefore(position));
                    done = position;
                    OpenNextInTime(index, passage, position, pipeline.Course);
                    BeginNextInTime(index + 1, pipeline.Course);
                    Note(pipeline, TreatOne(pipeline, start + position, position));
                }

                PassOver(
                    pipeline,
                    start,
                    done + 1,
                    stop.IsCancellationRequested ? done + 1 : passage.FrameCount,
                    pipeline.Course.ReasonBefore(null)
                );
                stepper?.Reset();
            }
            catch (Exception failure)
            {
                journal.Fail(PassageFailures.Of(index, failure));
                slots.Lose(start + Math.Max(0, done), start + passage.FrameCount, DropReason.PassageFailed);
            }
        }

        Release(next);
        Task.WaitAll(retired, CancellationToken.None);
    }

    /// <summary>Gives up what was not begun, from one frame of the passage up to another.</summary>
    private void PassOver(PassagePipeline pipeline, long start, long from, long to, DropReason reason)
    {
        slots.Lose(start + from, start + to, reason);
        for (var position = from; position < to; position++)
        {
            Note(pipeline, isSeen: false);
        }
    }

    private void Note(PassagePipeline pipeline, bool isSeen)
    {
        if (stepper?.Observe(!isSeen) == true)
        {
            pipeline.ScaleTo(stepper.Scale);
            pipeline.Course.ForgetEffects();
        }
    }

    /// <summary>Closes the decoders of a passage that is over, beside the playing so that a cut does not wait for them, and notes
    /// what went wrong without ending it.</summary>
    private void Retire(PassagePipeline pipeline, int index)
    {
        foreach (var words in pipeline.Overcome)
        {
            journal.Fail(new PassageFailure(index, words, Overcome: true));
        }

        retired.Add(Task.Run(pipeline.Dispose, CancellationToken.None));
    }

    /// <returns>Whether the frame is ready before its slot is over.</returns>
    private bool TreatOne(PassagePipeline pipeline, long frame, long position)
    {
        var asked = run.Now;
        if (!pipeline.Course.IsWorthTreating(position))
        {
            return GiveUp(pipeline, frame, position, DropReason.EffectsSkipped, pipeline.PassOver(position));
        }

        if (pipeline.Take(position) is not { } decoded)
        {
            return GiveUp(pipeline, frame, position, DropReason.NotReady, TimeSpan.Zero);
        }

        try
        {
            var began = run.Now;
            var (read, decode) = (Sum(decoded, f => f.Read), Sum(decoded, f => f.Decode));
            pipeline.Course.Gathered(position, began - asked);
            if (!pipeline.Course.IsWorthTreating(position))
            {
                return GiveUp(pipeline, frame, position, DropReason.EffectsSkipped, read + decode);
            }

            pipeline.Prepare(decoded);
            began = run.Now;
            if (pipeline.Treat(decoded, position) is not { } picture)
            {
                return GiveUp(pipeline, frame, position, DropReason.NotReady, read + decode);
            }

            var ready = run.Now;
            var spent = ready - began + Sum(decoded, f => f.Made);
            var canBeShown = slots.Publish(
                frame, new TreatedFrame(picture, ready, read, decode, spent, stepper?.Scale ?? plan.Settings.Scale));
            pipeline.Course.Done(spent);
            journal.Decisions?.Add(new Decision(ready, DecisionAct.Finished, frame));
            if (!canBeShown && keepsTime)
            {
                journal.Wasted(ready, read + decode + spent);
            }

            return canBeShown && (run.Slots is not { } clock || ready < clock.EndOf(frame));
        }
        finally
        {
            foreach (var layer in decoded)
            {
                layer.Dispose();
            }
        }
    }

    private bool GiveUp(PassagePipeline pipeline, long frame, long position, DropReason reason, TimeSpan spent)
    {
        journal.Decisions?.Add(new Decision(run.Now, DecisionAct.GivenUp, frame) { Reason = reason });
        slots.Lose(frame, frame + 1, reason);
        pipeline.Course.Done(null);
        journal.Wasted(run.Now, spent);
        return false;
    }

    /// <summary>Without a clock no cut has to be met, and each passage has the machine to itself: the next one is opened once it is
    /// over.</summary>
    private void OpenNextInTime(int index, Passage passage, long position, PassageCourse course)
    {
        if (plan.Settings.Policy == PlayingPolicy.Unpaced)
        {
            return;
        }

        var (at, cut) = (plan.Timeline.Rate.StartOf(position), plan.Timeline.Rate.StartOf(passage.FrameCount));
        if (next is null && index + 1 < plan.Timeline.Passages.Count && Timing.IsNextDue(at, course.Way, cut))
        {
            next = Open(index + 1);
        }

        // A passage that is too much needs all of the machine until its last frame is begun.
        if (cut - at <= GoOnAhead && (!course.IsBehind || course.IsAtEnd))
        {
            next?.Course.GoOn();
        }
    }

    /// <summary>In a passage that is too much, the first frame of the next one is treated before the last ones of it, as soon as it is
    /// decoded.</summary>
    private void BeginNextInTime(int index, PassageCourse course)
    {
        if (!isFirstDone && keepsTime && course.IsBehind && next is { Pipeline.IsCompletedSuccessfully: true } && run.Slots is { } clock
            && next.Pipeline.Result.HasFrame && Timing.IsFirstDue(run.Now, course.Way, clock.StartOf(plan.Timeline.StartOf(index))))
        {
            try
            {
                isFirstDone = true;
                TreatOne(next.Pipeline.Result, plan.Timeline.StartOf(index), 0);
            }
            catch (Exception)
            {
                // It fails again in its own passage, where it is reported.
                isFirstDone = false;
            }
        }
    }

    private Opening Open(int index)
    {
        var passage = plan.Played(index);
        var course = new PassageCourse(
            run, plan.Timeline.Rate, plan.Timeline.StartOf(index), passage.FrameCount, keepsTime, passage.Layers.Count, isAhead: true,
            journal.Decisions);
        return new Opening(course, Task.Run(() => new PassagePipeline(plan, passage, course, files, graph, threads)));
    }

    private static void Release(Opening? opened)
    {
        try
        {
            opened?.Pipeline.GetAwaiter().GetResult().Dispose();
        }
        catch (Exception)
        {
            // The passage was never reached; whether its clips open does not matter any more.
        }
    }

    private static TimeSpan Sum(IReadOnlyList<DecodedFrame> frames, Func<DecodedFrame, TimeSpan> part) =>
        frames.Aggregate(TimeSpan.Zero, (sum, frame) => sum + part(frame));

    /// <summary>A passage that is being opened, or is open.</summary>
    private sealed record Opening(PassageCourse Course, Task<PassagePipeline> Pipeline);

    private readonly struct RunOnDispose(Action retire) : IDisposable
    {
        public void Dispose() => retire();
    }
}
