using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Player.Native;

namespace HardyBench.Player.Playing;

/// <summary>Shows treated frames in their slots and settles every slot once. Runs on one thread.</summary>
public sealed class Presenting(PlaybackPlan plan, RunClock run, TreatedSlots slots, IScreen screen, RunJournal journal)
{
    private readonly Presenter presenter = new(plan.Timeline.Rate, plan.Settings.Policy, plan.Timeline.Cuts());

    public void Present(CancellationToken stop)
    {
        for (var total = plan.Timeline.FrameCount; presenter.Frame < total && !stop.IsCancellationRequested;)
        {
            var (changes, now) = (slots.Changes, run.Now);
            if (presenter.Clock is null && slots.ReadyAt(presenter.Frame) is { } ready
                && !PreRoll.IsDone(slots.Waiting, plan.Settings.LookAhead, total, now - ready))
            {
                Thread.Sleep(1);
                continue;
            }

            var decision = presenter.Decide(now, slots);
            if (decision.Act != PresenterAct.Wait)
            {
                Settle(decision);
            }
            else if (decision.OnlyTime || decision.Until - now < RunClock.SpinLength)
            {
                run.WaitUntil(decision.Until, stop);
            }
            else
            {
                slots.WaitForChange(
                    changes, decision.Until == TimeSpan.MaxValue ? decision.Until : decision.Until - now - RunClock.SpinLength);
            }
        }

        Record(presenter.End(run.Now, slots));
    }

    private void Settle(PresenterDecision decision)
    {
        var now = run.Now;
        if (decision.Act == PresenterAct.Show)
        {
            if (slots.Find(decision.Frame) is not { } treated)
            {
                // Stopped meanwhile.
                return;
            }

            screen.Show(decision.Frame, treated.Picture);
        }

        var settled = presenter.Settle(decision, now, slots);
        run.Publish(presenter.Clock);
        Record(settled);
    }

    private void Record(IReadOnlyList<SettledSlot> settled)
    {
        foreach (var slot in settled)
        {
            Record(slot);
        }
    }

    private void Record(SettledSlot slot)
    {
        var (picture, waiting, now) = (slots.Find(slot.Frame), slots.Waiting, slot.Shown ?? run.Now);
        journal.Decisions?.Settled(now, slot);
        journal.Settled(new FrameRecord(
            (int)slot.Frame,
            slot.SlotStart,
            picture?.Ready,
            slot.Shown,
            slot.Status,
            slot.Reason,
            picture?.Read ?? TimeSpan.Zero,
            picture?.Decode ?? TimeSpan.Zero,
            picture?.Effects ?? TimeSpan.Zero,
            picture is null ? TimeSpan.Zero : now - picture.Ready,
            waiting,
            picture?.Scale ?? plan.Settings.Scale));
        slots.Settle(slot.Frame);
    }

    /// <summary>Lets this thread run before others where the system allows it.</summary>
    public static bool RaisePriority() => NativeMethods.RaisePriority() == 0;
}
