using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Limiters;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.Playback.Programs;
using HardyBench.Core.StandIns;
using static System.FormattableString;

namespace HardyBench.Core.Wording;

/// <summary>Answers to briefs in words.</summary>
public static class AnswerWords
{
    /// <summary>What is best done, a sentence.</summary>
    public static string Headline(Answer answer)
    {
        var owned = answer.Owned?.Machine.Name;
        return answer.Kind switch
        {
            AnswerKind.KeepIt => $"Keep {owned}",
            AnswerKind.ChangeMethod => $"Keep {owned}, and {Of(Accepted(answer))}{Effort(Accepted(answer), answer.Brief)}",
            AnswerKind.Upgrade => $"Put {Of(answer.Ladder.Path!)} into {owned}",
            AnswerKind.Buy => $"Buy {answer.Recommended!.Offer.Machine.Name}",
            AnswerKind.OverBudget => "Nothing within the budget plays all of it",
            _ => "Nothing on offer plays all of it",
        };
    }

    /// <summary>Why, a sentence or two.</summary>
    public static string Reason(Answer answer) => answer.Kind switch
    {
        AnswerKind.KeepIt => $"It plays every passage of the work in real time{Growing(answer)}. There is nothing to buy.",
        AnswerKind.ChangeMethod => Invariant($"So every passage holds, and nothing has to be bought.{Instead(answer)}"),
        AnswerKind.Upgrade => $"With that, {Money(answer.Ladder.Path!.Price)}, it plays every passage{Growing(answer)}.{MoreExpensive(answer)}",
        AnswerKind.Buy => Buying(answer, answer.Recommended!, answer.Shortlist.Cheapest!),
        AnswerKind.OverBudget => Beyond(answer),
        _ => answer.Shortlist.Nearest is { } nearest
            ? Invariant($"{nearest.Offer.Machine.Name} comes nearest, {Money(nearest.Offer.Price)}: {Place(nearest.Weakest, answer)} ")
                + Invariant($"gets {nearest.Weakest.Headroom:0.00} of what it needs from {Of(nearest.Weakest.Tightest)}.")
            : answer.Shortlist.Counts.Late > 0
                ? "Every machine and build within its limits of form and noise takes longer to show a picture than the brief allows."
            : "No machine and no build lies within its limits of form and noise."
                + (answer.Shortlist.Unknown.Count > 0 ? " Of some, listed below, something has to be found out first." : string.Empty),
    };

    /// <summary>Why this machine, and what the cheapest that plays the work at all would lack.</summary>
    private static string Buying(Answer answer, Step wanted, Step bare)
    {
        var (place, part) = (Place(wanted.Weakest, answer), Of(wanted.Weakest.Tightest));
        var first = Invariant($"If the work grows, {place} drops frames first: {part} can do {wanted.Weakest.Headroom:0.00} times what it requires.");
        if (wanted == bare)
        {
            return Invariant($"Of {answer.Shortlist.Counts.All:N0} machines and builds on offer it is the cheapest that plays every passage{Growing(answer)}. {first}");
        }

        var has = wanted.Weakest.Headroom >= Shortlist.Margin
            ? Invariant($"Of {answer.Shortlist.Counts.All:N0} machines and builds on offer it is the cheapest that plays every passage{Growing(answer)} with {Shortlist.Margin - 1:P0} in reserve.")
            : $"Of what the budget allows, it plays every passage{Growing(answer)} with the most in reserve.";
        return Invariant($"{has} {first} {bare.Offer.Machine.Name} costs {Money(wanted.Offer.Price - bare.Offer.Price)} less and plays every ")
            + Invariant($"passage too, but with only {bare.Weakest.Headroom:0.00} times what {Place(bare.Weakest, answer)} requires.");
    }

    /// <summary>What was asked, a sentence: whoever reads the answer on paper sees nothing else of it.</summary>
    /// <param name="timelines">Titles, in the order of the brief.</param>
    public static string Question(Answer answer, IReadOnlyList<string> timelines)
    {
        var brief = answer.Brief;
        var work = brief.Timelines.Zip(timelines, (id, title) =>
            brief.HoursAWeek?.GetValueOrDefault(id) is > 0 and var hours ? Invariant($"{title} ({hours:0.#} h of footage a week)") : title);
        return string.Join(", ", new[]
        {
            $"What plays {string.Join(" and ", work)} in real time {Using(answer.Program)}at {brief.Scale.ToString().ToLowerInvariant()} preview scale",
            Invariant($"through a session of {brief.SessionMinutes:0} min"),
            brief.OnBattery ? "on battery" : null,
            brief.Growth > 1 ? Invariant($"with room for {brief.Growth:0.##} times the work") : null,
            brief.Others is { } others ? $"beside other programs that take {Of(others)}" : null,
            brief.MostStartSeconds is { } start ? Invariant($"begins within {start:0.##} s") : null,
            brief.MostScrubSeconds is { } scrub ? Invariant($"shows a frame within {scrub:0.##} s") : null,
            brief.MostDecibels is { } loud ? Invariant($"is no louder than {loud:0.#} dB(A)") : null,
            brief.Forms is { Count: > 0 } forms ? $"as {string.Join(" or ", forms.Select(Of))}" : null,
            brief.StoredHours is { } kept ? Invariant($"with {kept:0.#} h of stored footage") : null,
            brief.Budget is { } budget ? $"for up to {Money(budget)}" : null,
            answer.Owned is { } owned ? $"if you own {owned.Machine.Name}" : null,
        }.OfType<string>()) + "?";
    }

    private static string Using(EditingProgram? program) => program is null ? string.Empty : $"in {program.Name} ";

    /// <summary>What the stored footage takes, a sentence or two; null where nobody said how much is kept.</summary>
    public static string? Storage(Answer answer) => answer.Stored is not { } stored ? null
        : Invariant($"{stored.Hours:0.#} h of this footage take {Gigabytes(stored.Bytes)} on the footage drive. ")
            + "How much a drive holds is not entered for machines: check it before you buy.";

    private static string Of(OtherPrograms others) => string.Join(" and ", new[]
    {
        others.Cores > 0 ? Invariant($"{others.Cores:0.##} cores") : null, others.Gigabytes > 0 ? Invariant($"{others.Gigabytes:0.##} GB") : null,
    }.OfType<string>());

    private static string Of(MachineForm form) => form switch
    {
        MachineForm.SmallDesktop => "a small desktop",
        MachineForm.AllInOne => "an all-in-one",
        _ => $"a {form.ToString().ToLowerInvariant()}",
    };

    /// <summary>What has to be found out of a machine before it can be chosen, a phrase.</summary>
    public static string ToFindOut(UnknownOffer unknown) => string.Join(" and ", unknown.ToFindOut.Select(what => what switch
    {
        ExceededLimit.FormUnknown => "its form",
        ExceededLimit.NoiseUnknown => "its noise",
        _ => "how long scrubbing takes on it",
    }));

    private static Remedy Accepted(Answer answer) => answer.Remedies.First(remedy => remedy.IsAcceptable(answer.Brief));

    /// <summary>The time that a way of working takes, a phrase after a comma; empty for none.</summary>
    private static string Effort(Remedy remedy, Brief brief)
    {
        if (remedy.Bytes <= 0)
        {
            return string.Empty;
        }

        if (remedy.HoursAWeek(brief) is { } hours)
        {
            return $", which takes {Figures.Length(TimeSpan.FromHours(hours))} a week";
        }

        var playing = remedy.Made.Aggregate(TimeSpan.Zero, (sum, one) => sum + one.Playing);
        return remedy.Made.Aggregate(TimeSpan.Zero, (sum, one) => sum + one.Making) / playing is var share && double.IsFinite(share)
            ? Invariant($", which takes {share:0.0#} h for each hour of footage")
            : string.Empty;
    }

    /// <summary>What became of everything on offer, a sentence.</summary>
    public static string Of(ShortlistCounts counts) =>
        Invariant($"Of {counts.All:N0} machines and builds {counts.OutsideLimits:N0} lie outside the limits, ")
            + (counts.Late > 0 ? Invariant($"{counts.Late:N0} take longer to show a picture than the brief allows, ") : string.Empty)
            + Invariant($"{counts.CannotHold:N0} cannot hold, or lack the required headroom, by the bottleneck law, {counts.DoesNotHold:N0} do not hold in the simulation, ")
            + Invariant($"and {counts.NoBetter:N0} cost more without more headroom.");

    /// <summary>A way of working, a phrase with a verb.</summary>
    public static string Of(Remedy remedy) => string.Join(" and ", remedy.Kinds.Select(Of));

    /// <summary>What it costs, a phrase; empty for nothing.</summary>
    public static string Cost(Remedy remedy, Brief brief) => string.Join("; ", new[]
    {
        remedy.Bytes > 0 ? $"{Gigabytes(remedy.Bytes)} of disk{Stored(remedy, brief)}, and {Making(remedy, brief)}" : null,
        remedy.Kinds.Any(kind => kind is RemedyKind.HalfScale or RemedyKind.QuarterScale) ? "a coarser picture while editing" : null,
        remedy.Kinds.Any(kind => kind is RemedyKind.HalfProxies or RemedyKind.QuarterProxies) ? "finer detail is not seen while editing" : null,
        remedy.Kinds.Contains(RemedyKind.HalfRate) ? "motion is less fluent while editing" : null,
        remedy.Kinds.Contains(RemedyKind.PreRenders) ? "rendered again after each change" : null,
    }.OfType<string>());

    private static string Stored(Remedy remedy, Brief brief) => remedy.StoredBytes(brief) is { } bytes
        ? Invariant($" ({Gigabytes(bytes)} for all {brief.StoredHours:0.#} h of stored footage)")
        : string.Empty;

    private static string Making(Remedy remedy, Brief brief)
    {
        var (making, playing) = remedy.Made.Aggregate((One, Other) => (One.Making + Other.Making, One.Playing + Other.Playing));
        var times = Invariant($"{Figures.Length(making)} to create them, {making / playing:0.##} times their length");
        return remedy.HoursAWeek(brief) is { } hours ? $"{times}: {Figures.Length(TimeSpan.FromHours(hours))} a week" : times;
    }

    /// <summary>What it does, a phrase.</summary>
    public static string Gain(Remedy remedy) => remedy switch
    {
        { Suffices: true } => "every passage holds",
        { HasRoom: false } when remedy.Holding == remedy.Judged => "every passage holds, with less headroom than the brief requires",
        { InTime: false } when remedy.Holding == remedy.Judged => "every passage holds, but pictures appear later than the brief allows",
        { IsUseless: true } => $"does not help: {Limit(remedy)}",
        _ => $"{remedy.Holding} of {remedy.Judged} passages hold; {Limit(remedy)}",
    };

    /// <summary>The parts of a rung, a phrase.</summary>
    public static string Of(Rung rung) => string.Join(" and ", rung.Parts.Select(part => part.Name));

    /// <summary>What they bring, a phrase.</summary>
    public static string Gain(Rung rung) => rung.GainsNothing
        ? GainsNothing(rung.Before)
        : Invariant($"headroom {rung.Before.Headroom:0.00} → {rung.After.Headroom:0.00}");

    /// <summary>What keeps a part out, a phrase.</summary>
    public static string Refusal((Part Part, string Why) refused) => $"{refused.Part.Name}, {Money(refused.Part.Price)}: {refused.Why}";

    /// <summary>Whether parts are the way to go, a sentence; null where none can be put in.</summary>
    public static string? Path(Answer answer)
    {
        var cheapest = answer.Shortlist.Best(answer.Brief.Budget)?.Offer;
        return answer.Ladder switch
        {
            { Path: { } path } when cheapest is not null && cheapest.Price < path.Price =>
                Invariant($"With {Of(path)}, {Money(path.Price)}, it would be enough; {cheapest.Machine.Name} costs less, {Money(cheapest.Price)}."),
            { Path: { } path } => Invariant($"With {Of(path)}, {Money(path.Price)}, it does all of the work."),
            { Rungs.Count: 0, Useless.Count: 0 } => null,
            _ => "No one or two parts that are known to fit make it play all of the work.",
        };
    }

    /// <summary>What a machine that was not played is predicted by, a sentence or two.</summary>
    public static string BasisOf(MachineCheck check) => check.Machine.Costs is { } costs
        ? Invariant($"{check.Machine.Name} is predicted from measurements of {costs.MeasuredAt:d MMMM yyyy}, ")
            + $"within {Figures.Percent(costs.Band)} in 95 of 100 cases."
            + (check.Extrapolates ? " Some of the footage lies outside what was measured, so less is certain there." : string.Empty)
        : $"{check.Machine.Name} was not measured: it is predicted from what all stand-ins have in common.";

    /// <summary>A better part, a phrase.</summary>
    public static string Of(ChangedPart part) => part switch
    {
        ChangedPart.Processor => "a processor half as fast again",
        ChangedPart.Graphics => "graphics twice as fast",
        ChangedPart.MediaEngine => "one more media engine, that takes every long-GOP format of the work",
        ChangedPart.Memory => "twice the memory",
        _ => "drives twice as fast",
    };

    /// <summary>What a better part brings, a phrase.</summary>
    public static string Gain(PartChange change) => change.GainsNothing
        ? GainsNothing(change.Before)
        : Invariant($"{change.Before.Headroom:0.00} → {change.After.Headroom:0.00} of what is needed; then {Of(change.After.Tightest)} ")
            + $"limits first, in passage {change.After.Passage + 1}";

    /// <summary>How a machine that is there does, a phrase.</summary>
    public static string Of(MachineCheck check, Brief brief) => !check.Holds ? "does not play all of it" : check.Lacks(brief) switch
    {
        null => "plays all of it",
        ExceededLimit.Room when brief.Growth <= 1 => "plays it only because its passages are short, and would not sustain it",
        ExceededLimit.Room => "plays all of it, with less headroom than is required",
        ExceededLimit.Form => "plays all of it, but has another form than the brief allows",
        ExceededLimit.Battery => "plays all of it, but has no battery, or its limit on battery is not entered",
        ExceededLimit.FormUnknown => "plays all of it; its form is not entered",
        ExceededLimit.NoiseUnknown => "plays all of it; its noise is not entered",
        ExceededLimit.WaitUnknown => "plays all of it; how long scrubbing takes on it is not known",
        ExceededLimit.Start => $"plays all of it, but takes {Waited(check.Wait?.Start)} to start, longer than the brief allows",
        ExceededLimit.Scrub => $"plays all of it, but takes {Waited(check.Wait?.Scrub)} to show a frame while scrubbing, longer than the brief allows",
        _ => "plays all of it, but is louder than the brief allows",
    };

    /// <summary>A station, as the thing that is overloaded.</summary>
    public static string Of(Station station) => station switch
    {
        Station.Drive => "the drive",
        Station.SwapDrive => "the system drive, because memory is too small",
        Station.MediaEngine => "the media engine",
        Station.Processor or Station.DecoderCores => "the processor",
        Station.Bus => "the bus",
        Station.Graphics => "graphics compute",
        Station.Heat => "cooling, during the working session",
        Station.Power => "the power limit",
        _ => "a single core",
    };

    /// <summary>The longest wait for a picture on a machine, a phrase.</summary>
    public static string Of(GestureWait wait) => $"playback starts within {Waited(wait.Start)}, a frame shows within {Waited(wait.Scrub)}";

    private static string Waited(TimeSpan? wait) => Invariant($"{wait?.TotalSeconds:0.00} s");

    public static string Money(decimal sum) => Invariant($"{sum:N0} {Machine.Currency}");

    private static string Beyond(Answer answer)
    {
        var offer = answer.Shortlist.Cheapest?.Offer;
        var (what, price) = answer.Ladder.Path is { } path && !(offer?.Price < path.Price)
            ? ($"{Of(path)} in {answer.Owned?.Machine.Name}", path.Price)
            : (offer!.Machine.Name, offer.Price);
        return $"The cheapest that plays every passage{Growing(answer)} is {what}, {Money(price)}: "
            + $"{Money(price - (answer.Brief.Budget ?? 0))} more.";
    }

    private static string MoreExpensive(Answer answer) => answer.Shortlist.Cheapest is { } step
        ? $" The cheapest machine that does is {step.Offer.Machine.Name}, {Money(step.Offer.Price)}."
        : " No machine on offer does.";

    private static string Instead(Answer answer) => answer.Shortlist.Cheapest is { } step
        ? Invariant($" The cheapest that plays it as it is would be {step.Offer.Machine.Name}, {Money(step.Offer.Price)}.")
        : string.Empty;

    private static string Growing(Answer answer) =>
        answer.Brief.Growth > 1 ? Invariant($" and has {answer.Brief.Growth:0.##} times the required rate") : string.Empty;

    private static string Place(Forecast forecast, Answer answer) => answer.Brief.Timelines.Count == 1
        ? $"passage {forecast.Passage + 1}"
        : $"passage {forecast.Passage + 1} of {answer.Brief.Timelines[forecast.Timeline]}";

    private static string GainsNothing(Forecast before) =>
        $"gains nothing: {Of(before.Tightest)} limits first, in passage {before.Passage + 1}";

    private static string Of(RemedyKind kind) => kind switch
    {
        RemedyKind.CloseOthers => "close the other programs",
        RemedyKind.Intermediates => "edit intermediates of the same raster",
        RemedyKind.HalfRate => "edit at half the rate",
        RemedyKind.PreRenders => "render the passages beforehand",
        RemedyKind.HalfProxies => "edit proxies of half the raster",
        RemedyKind.QuarterProxies => "edit proxies of a quarter of the raster",
        RemedyKind.HalfScale => "preview at half scale",
        _ => "preview at quarter scale",
    };

    private static string Limit(Remedy remedy) => LimiterRule.AdviceOf(remedy.Limiter ?? Limiter.Unknown).Still;

    private static string Gigabytes(double bytes) => bytes >= 1e12 ? Invariant($"{bytes / 1e12:0.0} TB") : bytes >= 1e9 ? Invariant($"{bytes / 1e9:0.0} GB") : Invariant($"{bytes / 1e6:0} MB");
}
