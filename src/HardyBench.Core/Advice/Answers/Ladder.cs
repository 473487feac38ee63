using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Machines;

namespace HardyBench.Core.Advice.Answers;

/// <summary>One or two parts put into a machine that is there.</summary>
/// <param name="Before">The passage with the least headroom without them.</param>
/// <param name="After">The one that has least with them.</param>
public sealed record Rung(IReadOnlyList<Part> Parts, Machine Machine, Forecast Before, Forecast After)
{
    public decimal Price => Parts.Sum(part => part.Price);

    public bool GainsNothing => After.GainsNothingOver(Before);

    /// <summary>Headroom for a thousand.</summary>
    public double GainPerThousand => (After.Headroom - Before.Headroom) / Math.Max(1e-9, (double)Price) * 1000;
}

/// <summary>What can be put into a machine that is there, one part or two.</summary>
/// <param name="Rungs">Those that gain something and that nothing cheaper or as dear matches, by what they gain for the money.</param>
/// <param name="Useless">Of each kind of part of which none gains anything by itself: the cheapest.</param>
/// <param name="Path">The cheapest of all that make the machine answer the brief; null where none does.</param>
public sealed record Ladder(IReadOnlyList<Rung> Rungs, IReadOnlyList<Rung> Useless, Rung? Path)
{
    public static Ladder None { get; } = new([], [], null);

    /// <summary>Headroom by the bottleneck law; what answers the brief by the simulation, from the cheapest on.</summary>
    /// <param name="growth">The headroom that every passage must have.</param>
    /// <param name="parts">All that can be bought.</param>
    public static Ladder For(Machine machine, double growth, IReadOnlyList<Part> parts, Forecaster forecaster)
    {
        if (forecaster.Weakest(machine) is not { } before)
        {
            return None;
        }

        var fitting = parts.Where(part => Upgrades.Fits(machine, part)).ToList();
        var single = fitting.Select(part => Of([part])).ToList();
        var pairs =
            from one in fitting
            from other in fitting
            where string.CompareOrdinal(one.GetType().Name, other.GetType().Name) < 0
            select Of([one, other]);
        // The fewest parts first where price and headroom are the same.
        List<Rung> all = [.. single.Concat(pairs).OrderBy(rung => rung.Price).ThenByDescending(rung => rung.After.Headroom)];
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
            all.Find(rung => rung.After.Headroom >= growth && !forecaster.CannotHold(rung.After) && forecaster.Holds(rung.Machine)));

        Rung Of(IReadOnlyList<Part> put)
        {
            var with = put.Aggregate(machine, Upgrades.With);
            return new Rung(put, with, before, forecaster.Weakest(with)!);
        }
    }
}
