using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Playback.Gestures;

namespace HardyBench.Core.Advice.Answers;

/// <summary>An offer that answers a brief.</summary>
/// <param name="Weakest">The passage with the least headroom: what fails first as the work grows.</param>
/// <param name="Chance">That all of the work holds, 0 to 1 (<see cref="Forecaster.Chance"/>).</param>
/// <param name="Wait">The longest wait for a picture.</param>
/// <param name="More">What it costs more than the one before it; null for the cheapest.</param>
public sealed record Step(Offer Offer, Forecast Weakest, double Chance, GestureWait Wait, decimal? More);

/// <summary>The offers that answer a brief, cheapest first, each of the others with more headroom than all cheaper ones.</summary>
/// <param name="Nearest">Where none does: the one with the most headroom, of those within the limits; null without any.</param>
/// <param name="Counts">What became of the offers.</param>
/// <param name="Unknown">Offers that would satisfy the brief if what is not known of them turned out well, cheapest first.</param>
public sealed record Shortlist(IReadOnlyList<Step> Steps, Step? Nearest, ShortlistCounts Counts, IReadOnlyList<UnknownOffer> Unknown)
{
    /// <summary>More offers than this are not listed for what is not known of them.</summary>
    private const int MaxUnknown = 10;

    /// <summary>A step has so much more headroom than the one before: less is not worth money.</summary>
    public const double WorthMore = 1.1;

    /// <summary>Headroom that a recommended machine has at least, where the money suffices: the model's costs are within a quarter, and
    /// work that only just plays today does not after the next effect. Common practice, no source.</summary>
    public const double Margin = 1.2;

    /// <summary>The bare minimum, whatever is recommended and whatever the budget; null where nothing answers.</summary>
    public Step? Cheapest => Steps is [var first, ..] ? first : null;

    /// <summary>What is recommended, or beyond the budget the cheapest that answers; null where nothing does.</summary>
    public Step? Best(decimal? budget) => Recommended(budget) ?? Cheapest;

    /// <summary>What to buy: the cheapest within the budget that has the margin; where none has, the one within the budget that has most to
    /// spare. Null where the budget buys nothing that answers.</summary>
    public Step? Recommended(decimal? budget) => Within(budget).Steps is { Count: > 0 } steps
        ? steps.FirstOrDefault(step => step.Weakest.Headroom >= Margin) ?? steps[^1]
        : null;

    /// <summary>Whether an offer is worth its further price: it has clearly more headroom than the one before, or is the first with the
    /// margin.</summary>
    private static bool IsWorthMore(double headroom, double before) =>
        headroom >= WorthMore * before || (headroom >= Margin && before < Margin);

    /// <summary>Looks through offers by rising price. Only what has more headroom than everything cheaper that answers is simulated, so the
    /// outcome is that of simulating all.</summary>
    /// <exception cref="OperationCanceledException">It was stopped.</exception>
    public static Shortlist For(Brief brief, IReadOnlyList<Offer> offers, Forecaster forecaster, CancellationToken stop = default)
    {
        var within = offers.Where(offer => brief.Outside(offer.Traits) is null)
            .AsParallel().WithCancellation(stop).Select(offer => (Offer: offer, Forecast: forecaster.Weakest(offer))).ToList();
        var (steps, counts) = (new List<Step>(), new ShortlistCounts(offers.Count, offers.Count - within.Count, 0, 0, 0, 0));
        var (asked, nearest) = (brief.Asked(), ((Offer Offer, Forecast Forecast)?)null);
        foreach (var (offer, found) in within.OrderBy(one => one.Offer.Price).ThenByDescending(one => one.Forecast?.Headroom))
        {
            stop.ThrowIfCancellationRequested();
            if (found is not { } forecast)
            {
                continue;
            }

            if (asked.Late(() => forecaster.Wait(offer)) is not null)
            {
                counts = counts with { Late = counts.Late + 1 };
                continue;
            }

            nearest = nearest is null || forecast.Headroom > nearest.Value.Forecast.Headroom ? (offer, forecast) : nearest;
            if (forecast.Headroom < asked.Headroom || forecaster.CannotHold(forecast))
            {
                counts = counts with { CannotHold = counts.CannotHold + 1 };
            }
            else if (steps is [.., var last] && !IsWorthMore(forecast.Headroom, last.Weakest.Headroom))
            {
                counts = counts with { NoBetter = counts.NoBetter + 1 };
            }
            else if (forecaster.Holds(offer))
            {
                steps.Add(StepOf(offer, forecast, steps is [.., var before] ? offer.Price - before.Offer.Price : null));
            }
            else
            {
                counts = counts with { DoesNotHold = counts.DoesNotHold + 1 };
            }
        }

        return new Shortlist(
            steps, steps.Count == 0 && nearest is var (near, its) ? StepOf(near, its, null) : null, counts,
                [.. Unknown().Take(MaxUnknown)]);

        IEnumerable<UnknownOffer> Unknown() =>
            from offer in offers
            where brief.Outside(offer.Traits) is ExceededLimit.FormUnknown or ExceededLimit.NoiseUnknown
            orderby offer.Price
            let weakest = forecaster.Weakest(offer)
            where weakest is not null && weakest.Headroom >= asked.Headroom && asked.Late(() => forecaster.Wait(offer)) is null
                && !forecaster.CannotHold(weakest) && forecaster.Holds(offer)
            select new UnknownOffer(offer, weakest, brief.Unknown(offer.Traits));

        Step StepOf(Offer offer, Forecast weakest, decimal? more) =>
            new(offer, weakest, forecaster.Chance(offer.Machine), forecaster.Wait(offer), more);
    }

    /// <summary>The same with another budget; nothing is computed again. With more money there is never less to choose from.</summary>
    public Shortlist Within(decimal? budget) => this with { Steps = [.. Steps.Where(step => !(step.Offer.Price > budget))] };
}

/// <summary>An offer of which something has to be found out first.</summary>
/// <param name="ToFindOut">What.</param>
public sealed record UnknownOffer(Offer Offer, Forecast Weakest, IReadOnlyList<ExceededLimit> ToFindOut);

/// <summary>What became of all offers.</summary>
/// <param name="All">That there were.</param>
/// <param name="OutsideLimits">Of another form, too loud, without a battery, or with one of these not known.</param>
/// <param name="Late">That take longer to show a picture than the brief allows.</param>
/// <param name="CannotHold">By the bottleneck law, or without the required headroom.</param>
/// <param name="DoesNotHold">By the simulation.</param>
/// <param name="NoBetter">More expensive than one that answers, without more headroom.</param>
public sealed record ShortlistCounts(int All, int OutsideLimits, int Late, int CannotHold, int DoesNotHold, int NoBetter);
