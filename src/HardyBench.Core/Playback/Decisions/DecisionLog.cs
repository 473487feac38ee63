using HardyBench.Core.Pacing;

namespace HardyBench.Core.Playback.Decisions;

/// <summary>Collects decisions while a run plays. Without one nothing is collected: callers hold null and write <c>log?.Add(…)</c>, which
/// does not even work out what would be added. Any thread may add.</summary>
public sealed class DecisionLog
{
    private readonly Lock gate = new();
    private List<Decision> news = [];

    public void Add(Decision decision)
    {
        lock (gate)
        {
            news.Add(decision);
        }
    }

    /// <summary>A frame was chosen.</summary>
    /// <param name="chosen">By timeline frame.</param>
    public void Chosen(TimeSpan at, Choice chosen, Aim aim, SlotClock? clock, WorkInProgress underWay) =>
        Add(new Decision(at, DecisionAct.Chosen, chosen.Frame)
        {
            Reason = chosen.Reason,
            Basis = new ChoiceBasis(
                clock?.StartOf(chosen.Frame), aim.Way, aim.Decoding.Mean, aim.Effects.Mean, underWay.Undecoded, underWay.BeforeEffects),
        });

    /// <summary>A frame was shown or dropped.</summary>
    public void Settled(TimeSpan at, SettledSlot slot) =>
        Add(new Decision(slot.Shown ?? at, slot.Shown is null ? DecisionAct.Dropped : DecisionAct.Shown, slot.Frame)
        {
            Status = slot.Status,
            Reason = slot.Reason,
        });

    /// <summary>What was added since the last call.</summary>
    public IReadOnlyList<Decision> TakeNews()
    {
        lock (gate)
        {
            (var taken, news) = (news, []);
            return taken;
        }
    }
}
