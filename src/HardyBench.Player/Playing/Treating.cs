using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Player.Decoding;
using HardyBench.Player.Effects;
using HardyBench.Player.Native;

namespace HardyBench.Player.Playing;

/// <summary>Takes decoded frames through their effects, passage after passage, skipping what could not be seen.
/// Runs on one thread.</summary>
public sealed class Treating(
    PlaybackPlan plan, RunClock run, TreatedSlots slots, IClipFiles files, PassageGraph graph, int threads, RunJournal journal)
{
    /// <summary>How long before a cut the next passage is opened.</summary>
    private static readonly TimeSpan OpenAhead = TimeSpan.FromSeconds(1);

    private readonly ScaleStepper? stepper = plan.Settings.AutomaticScale ? new ScaleStepper(plan.Settings.Scale, plan.Timeline.Rate) : null;
    private readonly bool keepsTime = plan.Settings.Policy == PlayingPolicy.KeepTime;
    private readonly List<Task> retired = [];
    private Task<PassagePipeline>? next;

    public void Treat(CancellationToken stop)
    {
        for (var index = 0; index < plan.Timeline.Passages.Count && !stop.IsCancellationRequested; index++)
        {
            var passage = plan.Timeline.Passages[index];
            var start = plan.Timeline.StartOf(index);
            var position = 0L;
            try
            {
                // Taken first: should it fail, the passage after it must not be lost with it.
                var opening = next ?? Open(index);
                next = null;
                var pipeline = opening.GetAwaiter().GetResult();
                using var retiring = new Retiring(() => Retire(pipeline, index));
                var effects = default(DurationEstimate);
                for (; position < passage.FrameCount && slots.WaitForRoom() && !stop.IsCancellationRequested; position++)
                {
                    OpenNextInTime(index, passage, position);
                    var isSeen = TreatOne(pipeline, start + position, position, ref effects);
                    if (stepper?.Observe(!isSeen) == true)
                    {
                        pipeline.ScaleTo(stepper.Scale);
                        effects = default;
                    }
                }

                stepper?.Reset();
            }
            catch (Exception failure)
            {
                journal.Fail(PassageFailures.Of(index, failure));
                slots.Lose(start + position, start + passage.FrameCount, DropReason.PassageFailed);
            }
        }

        LetGo(next);
        Task.WaitAll(retired, CancellationToken.None);
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
    private bool TreatOne(PassagePipeline pipeline, long frame, long position, ref DurationEstimate effects)
    {
        if (!IsWorthTreating(frame, effects.Expected))
        {
            // Decoders go past it by themselves, so nothing is taken here.
            effects.Doubt();
            slots.Lose(frame, frame + 1, DropReason.EffectsSkipped);
            return false;
        }

        if (pipeline.Take(position) is not { } decoded)
        {
            slots.Lose(frame, frame + 1, DropReason.DecodeSkipped);
            return false;
        }

        try
        {
            if (!IsWorthTreating(frame, effects.Expected))
            {
                effects.Doubt();
                slots.Lose(frame, frame + 1, DropReason.EffectsSkipped);
                return false;
            }

            var began = run.Now;
            if (pipeline.Treat(decoded, position) is { } picture)
            {
                var ready = run.Now;
                var spent = ready - began + Sum(decoded, f => f.Made);
                effects.Observe(spent);
                pipeline.Clock.Treating = effects.Expected;
                slots.Publish(frame, new TreatedFrame(picture, ready, Sum(decoded, f => f.Read), Sum(decoded, f => f.Decode), spent, stepper?.Scale ?? plan.Settings.Scale));
                return run.Slots is not { } clock || ready < clock.EndOf(frame);
            }

            slots.Lose(frame, frame + 1, DropReason.NotReady);
            return false;
        }
        finally
        {
            foreach (var layer in decoded)
            {
                layer.Dispose();
            }
        }
    }

    private bool IsWorthTreating(long frame, TimeSpan expected) =>
        !keepsTime
        || run.Slots is not { } clock
        || (!slots.IsSettled(frame) && Pacing.IsWorthTreating(run.Now, expected, clock.EndOf(frame)));

    private void OpenNextInTime(int index, Passage passage, long position)
    {
        if (next is null
            && index + 1 < plan.Timeline.Passages.Count
            && plan.Timeline.Rate.StartOf(passage.FrameCount - position) <= OpenAhead)
        {
            next = Open(index + 1);
        }
    }

    private Task<PassagePipeline> Open(int index) => Task.Run(() => new PassagePipeline(
        plan,
        plan.Played(index),
        new PassageClock(run, plan.Timeline.Rate, plan.Timeline.StartOf(index), keepsTime),
        files,
        graph,
        threads));

    private static void LetGo(Task<PassagePipeline>? opened)
    {
        try
        {
            opened?.GetAwaiter().GetResult().Dispose();
        }
        catch (Exception)
        {
            // The passage was never reached; whether its clips open does not matter any more.
        }
    }

    private static TimeSpan Sum(IReadOnlyList<DecodedFrame> frames, Func<DecodedFrame, TimeSpan> part) =>
        frames.Aggregate(TimeSpan.Zero, (sum, frame) => sum + part(frame));

    private readonly struct Retiring(Action retire) : IDisposable
    {
        public void Dispose() => retire();
    }
}
