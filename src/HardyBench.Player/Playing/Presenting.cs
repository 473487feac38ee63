using HardyBench.Core.Playback;
using HardyBench.Player.Native;

namespace HardyBench.Player.Playing;

/// <summary>Shows treated frames in their slots and settles every slot once. Runs on one thread.</summary>
public sealed class Presenting(PlaybackPlan plan, RunClock run, TreatedSlots slots, IScreen screen, RunJournal journal)
{
    private readonly Presenter presenter = new(plan.Timeline.Rate, plan.Settings.Policy);

    public void Present(CancellationToken stop)
    {
        for (var total = plan.Timeline.FrameCount; presenter.Frame < total && !stop.IsCancellationRequested;)
        {
            var frame = presenter.Frame;
            var (picture, lost, waiting) = slots.Look(frame);
            var now = run.Now;
            if (presenter.Clock is null && picture is not null
                && !PreRoll.IsDone(waiting, plan.Settings.LookAhead, total, now - picture.Ready))
            {
                Thread.Sleep(1);
                continue;
            }

            var decision = presenter.Decide(now, picture?.Ready, lost);
            if (decision.Act != PresenterAct.Wait)
            {
                Settle(decision, frame, picture, waiting);
            }
            else if (picture is null && lost == DropReason.None)
            {
                slots.WaitFor(frame, decision.Until == TimeSpan.MaxValue ? decision.Until : decision.Until - now);
            }
            else
            {
                run.WaitUntil(decision.Until, stop);
            }
        }
    }

    private void Settle(PresenterDecision decision, long frame, TreatedFrame? picture, int waiting)
    {
        var now = run.Now;
        var shown = decision.Act == PresenterAct.Show;
        if (shown)
        {
            screen.Show(frame, picture!.Picture);
        }

        var slotStart = presenter.Settle(decision, now);
        run.Publish(presenter.Clock);
        slots.Settle(frame);
        journal.Settled(new FrameRecord(
            (int)frame,
            slotStart,
            picture?.Ready,
            shown ? now : null,
            decision.Status,
            decision.Reason,
            picture?.Read ?? TimeSpan.Zero,
            picture?.Decode ?? TimeSpan.Zero,
            picture?.Effects ?? TimeSpan.Zero,
            picture is null ? TimeSpan.Zero : now - picture.Ready,
            waiting,
            picture?.Scale ?? plan.Settings.Scale));
    }

    /// <summary>Lets this thread run before others where the system allows it.</summary>
    public static bool RaisePriority() => NativeMethods.RaisePriority() == 0;
}
