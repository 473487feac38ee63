using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Machines;

namespace HardyBench.Core.Advice.Answers;

/// <summary>Parts put into a machine that is there: one or two, or one with a larger supply and a larger cooler.</summary>
/// <param name="Before">The passage with the least headroom without them.</param>
/// <param name="After">The one that has least with them.</param>
/// <param name="IsUnsure">Whether their going in depends on what nobody has stated of the machine.</param>
public sealed record Rung(IReadOnlyList<Part> Parts, Machine Machine, Forecast Before, Forecast After, bool IsUnsure)
{
    public decimal Price => Parts.Sum(part => part.Price);

    public bool GainsNothing => After.GainsNothingOver(Before);

    /// <summary>Headroom for a thousand.</summary>
    public double GainPerThousand => (After.Headroom - Before.Headroom) / Math.Max(1e-9, (double)Price) * 1000;
}

/// <summary>What can be put into a machine that is there.</summary>
/// <param name="Rungs">Those that gain something and that nothing cheaper or as dear matches, by what they gain for the money.</param>
/// <param name="Useless">Of each kind of part of which none gains anything by itself: the cheapest.</param>
/// <param name="Path">The cheapest of all that are known to go in and make the machine satisfy the brief; null without any.</param>
/// <param name="Refused">Parts that would be better and do not go in, not even with a larger supply or cooler, with the reason.</param>
public sealed record Ladder(
    IReadOnlyList<Rung> Rungs, IReadOnlyList<Rung> Useless, Rung? Path, IReadOnlyList<(Part Part, string Why)> Refused)
{
    public static Ladder None { get; } = new([], [], null, []);

    /// <summary>Headroom by the bottleneck law; what answers the brief by the simulation, from the cheapest on.</summary>
    /// <param name="asked">Of every passage besides that it holds.</param>
    /// <param name="parts">All that can be bought.</param>
    /// <exception cref="OperationCanceledException">It was stopped.</exception>
    public static Ladder For(
        Machine machine, Asked asked, IReadOnlyList<Part> parts, Forecaster forecaster, CancellationToken stop = default)
    {
        if (forecaster.Weakest(machine) is not { } before)
        {
            return None;
        }

        var better = parts.Where(part => Upgrades.IsBetter(machine, part)).ToList();
        var fitting = better.Where(part => Fit([part])).ToList();
        var room = parts.Where(part => Upgrades.MakesRoom(machine, part)).ToList();
        var single = fitting.AsParallel().AsOrdered().WithCancellation(stop).Select(part => Of([part])).ToList();
        // Two parts are put together of those only that none replaces: a price list has many, and their pairs grow with the square. No
        // supply or cooler makes room for memory that does not go in, so it replaces nothing.
        var (best, bestRoom) = (Dominance.Best([.. better.Where(part => part is not MemoryPart || Fit([part]))]), Dominance.Best(room));
        var pairs = (
            from one in best.AsParallel().AsOrdered().WithCancellation(stop)
            from other in best
            where string.CompareOrdinal(one.GetType().Name, other.GetType().Name) < 0 && Fit([one, other])
            select Of([one, other])).ToList();
        // A larger supply or cooler is of use to what does not go in without it, or would be held back by heat.
        var withRoom = (
            from one in best.AsParallel().AsOrdered().WithCancellation(stop)
            from other in bestRoom
            where Fit([one, other])
            select Of([one, other])).ToList();
        // Where neither is enough, both: of supplies the cheapest that is, since it makes nothing faster.
        var supplies = room.OfType<SupplyPart>().OrderBy(supply => supply.Price).ToList();
        var withBoth = (
            from one in best.Except(fitting).AsParallel().AsOrdered().WithCancellation(stop)
            from cooler in bestRoom.OfType<CoolerPart>()
            where !Fit([one, cooler])
            let supply = supplies.Find(supply => Fit([one, supply, cooler]))
            where supply is not null
            select Of([one, supply, cooler])).ToList();
        // The fewest parts first where price and headroom are the same.
        List<Rung> all =
        [
            .. single.Concat(pairs).Concat(withRoom).Concat(withBoth)
                .OrderBy(rung => rung.Price).ThenByDescending(rung => rung.After.Headroom).ThenBy(rung => rung.Parts.Count),
        ];
        var (rungs, most) = (new List<Rung>(), 0.0);
        foreach (var rung in all.Where(rung => !rung.GainsNothing && rung.After.Headroom > most))
        {
            rungs.Add(rung);
            most = rung.After.Headroom;
        }

        return new Ladder(
            [.. rungs.OrderByDescending(rung => rung.GainPerThousand)],
            [
                .. single.GroupBy(rung => rung.Parts[0].GetType()).Where(kind => kind.All(rung => rung.GainsNothing))
                    .Select(kind => kind.MinBy(rung => rung.Price)!),
            ],
            all.Find(rung => !rung.IsUnsure && rung.After.Headroom >= asked.Headroom
                && asked.Late(() => forecaster.Wait(rung.Machine)) is null
                && !forecaster.CannotHold(rung.After) && forecaster.Holds(rung.Machine)),
            [
                .. better.Except(fitting).Where(part => !HasRoomAfterChange(part))
                    .Select(part => (part, Upgrades.Problems(machine, [part])[0])),
            ]);

        bool HasRoomAfterChange(Part part) => room.Exists(other => Fit([part, other]))
            || withBoth.Exists(rung => ReferenceEquals(rung.Parts[0], part) || Dominance.Replaces(rung.Parts[0], part));

        bool Fit(IReadOnlyList<Part> put)
        {
            stop.ThrowIfCancellationRequested();
            return Upgrades.Problems(machine, put).Count == 0;
        }

        Rung Of(IReadOnlyList<Part> put)
        {
            var with = Upgrades.With(machine, put);
            return new Rung(put, with, before, forecaster.Weakest(machine, put)!, Upgrades.IsUnsure(machine, put));
        }
    }
}
