using System.Text.Json;
using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Wording;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Advice;

/// <summary>Answers as JSON; docs/formats.md describes every member.</summary>
public static class AnswerJson
{
    public static string Write(AnswerDocument answer) => JsonSerializer.Serialize(answer, BenchJson.Options);
}

/// <summary>The document that <see cref="AnswerJson"/> writes, and the page shows.</summary>
/// <param name="Timelines">Titles, in the order of the brief.</param>
/// <param name="Headline">What is best done.</param>
/// <param name="Price">Of what is to be bought; null where nothing is.</param>
/// <param name="Refused">Parts that would be better and do not go in, with the reason, a sentence each.</param>
/// <param name="Steps">Offers that answer it, cheapest first, whatever they cost.</param>
/// <param name="Notes">What to know before trusting it.</param>
public sealed record AnswerDocument(
    string Format, Brief Brief, IReadOnlyList<string> Timelines, AnswerKind Kind, string Headline, string Reason,
    decimal? Price, string Currency,
    CheckRow? Owned, IReadOnlyList<RemedyRow> Remedies, IReadOnlyList<ChangeRow> Changes, string? Path,
    IReadOnlyList<RungRow> Ladder, IReadOnlyList<string> Refused, IReadOnlyList<StepRow> Steps,
    StepRow? Nearest, CheckRow? Pick, string Counts, IReadOnlyList<string> Notes)
{
    /// <summary>What was asked, a sentence.</summary>
    public string Question { get; init; } = string.Empty;

    /// <summary>What the stored footage takes, a sentence or two; null where the brief does not say how much is.</summary>
    public string? Storage { get; init; }

    /// <summary>Offers that would satisfy it if what is not known of them turned out well, cheapest first.</summary>
    public IReadOnlyList<UnknownRow> Unknown { get; init; } = [];

    public static AnswerDocument Of(Answer answer, IReadOnlyList<string> timelines) => new(
        "hardy-bench-answer/1", answer.Brief, timelines, answer.Kind, AnswerWords.Headline(answer), AnswerWords.Reason(answer),
        answer.Kind switch
        {
            AnswerKind.Upgrade => answer.Ladder.Path!.Price,
            AnswerKind.Buy => answer.Recommended!.Offer.Price,
            _ => null,
        },
        Machine.Currency,
        answer.Owned is { } owned ? CheckRow.Of(owned, answer.Brief, timelines) : null,
        [.. answer.Remedies.Select(remedy => new RemedyRow(
            remedy.Kinds, AnswerWords.Of(remedy), AnswerWords.Gain(remedy), AnswerWords.Cost(remedy, answer.Brief), remedy.Suffices,
            remedy.IsUseless, remedy.IsAcceptable(answer.Brief)))],
        [.. answer.Changes.Select(change => new ChangeRow(
            change.Part, AnswerWords.Of(change.Part), AnswerWords.Gain(change), change.After.Headroom, change.GainsNothing))],
        AnswerWords.Path(answer),
        [
            .. answer.Ladder.Rungs.Concat(answer.Ladder.Useless).Select(rung => new RungRow(
                AnswerWords.Of(rung), [.. rung.Parts.Select(part => part.Id)], rung.Price, AnswerWords.Gain(rung), rung.After.Headroom,
                rung.GainPerThousand, rung.GainsNothing, rung == answer.Ladder.Path, rung.IsUnsure)),
        ],
        [.. answer.Ladder.Refused.Select(AnswerWords.Refusal)],
        [
            .. answer.Shortlist.Steps.Select(step => StepRow.Of(step, answer.Brief, timelines) with
            {
                IsRecommended = answer.Kind == AnswerKind.Buy && step == answer.Recommended,
            }),
        ],
        answer.Shortlist.Nearest is { } nearest ? StepRow.Of(nearest, answer.Brief, timelines) : null,
        answer.Pick is { } pick ? CheckRow.Of(pick, answer.Brief, timelines) : null,
        AnswerWords.Of(answer.Shortlist.Counts),
        [.. NotesOn(answer)])
    {
        Question = AnswerWords.Question(answer, timelines),
        Storage = AnswerWords.Storage(answer),
        Unknown =
        [
            .. answer.Shortlist.Unknown.Select(unknown => new UnknownRow(
                unknown.Offer.Machine.Name, unknown.Offer.Build is null ? unknown.Offer.Machine.Id : null, unknown.Offer.Price,
                unknown.Weakest.Headroom, AnswerWords.ToFindOut(unknown))),
        ],
    };

    private static IEnumerable<string> NotesOn(Answer answer)
    {
        yield return "Offers are simulated and not measured: the model's costs are within a quarter in 95 of 100 cases, and the probabilities "
            + "follow from that.";
        if (answer.Brief.Owned is not null && answer.Owned is null)
        {
            yield return "The machine that you own has no complete bare run that counts, and was not measured, so nothing is known of it. Play it "
                + "first, or measure it on its page under Machines.";
        }

        if (answer.Owned is { IsMeasured: false } predicted)
        {
            yield return AnswerWords.BasisOf(predicted);
        }

        if (answer is { TwinHolds: true, Owned: { } played })
        {
            yield return $"{played.Machine.Name} did not play all of it, though by what was measured on it it should, so no other way of "
                + "working is calculated for it. Play it again; if it fails again, measure it again under Machines.";
        }

        if (answer is { Brief: { MostStartSeconds: not null } or { MostScrubSeconds: not null }, Owned: { Wait: null } silent })
        {
            yield return $"How long scrubbing takes on {silent.Machine.Name} is not known, so it does not satisfy the brief yet. Calibrate it "
                + "on its page under Machines.";
        }
    }
}

/// <summary>An offer of which something has to be found out first.</summary>
/// <param name="MachineId">Null for a build.</param>
/// <param name="Headroom">The least, over all passages.</param>
/// <param name="ToFindOut">What, a phrase.</param>
public sealed record UnknownRow(string Name, string? MachineId, decimal Price, double Headroom, string ToFindOut);

/// <param name="Words">What to do.</param>
/// <param name="Gain">What it does.</param>
/// <param name="Cost">What is given up for it; empty for nothing.</param>
/// <param name="Accepted">Whether it suffices and the brief accepts it.</param>
public sealed record RemedyRow(
    IReadOnlyList<RemedyKind> Kinds, string Words, string Gain, string Cost, bool Suffices, bool Useless, bool Accepted);

/// <param name="Words">The better part.</param>
/// <param name="Gain">What it brings.</param>
/// <param name="Headroom">The least over all of the work with it.</param>
public sealed record ChangeRow(ChangedPart Part, string Words, string Gain, double Headroom, bool GainsNothing);

/// <summary>One or two parts for the machine that is there.</summary>
/// <param name="Words">The parts.</param>
/// <param name="PartIds">Their ids.</param>
/// <param name="Gain">What they bring.</param>
/// <param name="Headroom">The least over all of the work with them.</param>
/// <param name="PerThousand">Headroom gained for a thousand.</param>
/// <param name="IsPath">Whether they are the cheapest with which it does all of the work.</param>
/// <param name="IsUnsure">Whether their going in depends on what nobody has stated of the machine.</param>
public sealed record RungRow(
    string Words, IReadOnlyList<string> PartIds, decimal Price, string Gain, double Headroom, double PerThousand, bool GainsNothing,
    bool IsPath, bool IsUnsure);

/// <summary>A machine on the work, passage by passage.</summary>
/// <param name="MachineId">Null for a build.</param>
/// <param name="Answers">Whether it holds, with the headroom and within the limits of the brief.</param>
/// <param name="Words">How it does, a phrase.</param>
/// <param name="Wait">The longest wait for a picture, a phrase; null where it is not known.</param>
public sealed record CheckRow(
    string? MachineId, string Name, bool IsMeasured, bool Answers, string Words, string? Wait, IReadOnlyList<CheckedRow> Passages)
{
    public static CheckRow Of(MachineCheck check, Brief brief, IReadOnlyList<string> timelines) => new(
        check.IsBuild ? null : check.Machine.Id, check.Machine.Name, check.IsMeasured, check.Answers(brief), AnswerWords.Of(check, brief),
        check.Wait is { } wait ? AnswerWords.Of(wait) : null,
        [.. check.Judged.Select(passage => CheckedRow.Of(passage, timelines[passage.Timeline]))]);
}

/// <param name="Number">In its timeline, from 1.</param>
/// <param name="Headroom">Capacity ÷ demand; null where unknown.</param>
/// <param name="Chance">That it holds, by the model's band, 0 to 1; null of a real machine.</param>
/// <param name="Tightest">The tightest part, a phrase; empty of a real machine.</param>
/// <param name="Evidence">Of the limiter, a sentence; empty where it holds.</param>
/// <param name="RunId">The run it comes from; null where it was calculated.</param>
public sealed record CheckedRow(
    string Timeline, int Number, string Question, Verdict? Verdict, double ShownRate, Limiter? Limiter, double? Headroom, double? Chance,
    string Tightest, string Evidence, long? RunId)
{
    public static CheckedRow Of(CheckedPassage passage, string timeline) => new(
        timeline, passage.Finding.Index + 1, passage.Finding.Passage.Question, passage.Finding.Verdict, passage.Finding.Counts.ShownRate,
        passage.Finding.Limiter?.Limiter, passage.Forecast?.Headroom ?? passage.Finding.Headroom, passage.Forecast?.Chance,
        passage.Forecast is { } forecast ? AnswerWords.Of(forecast.Tightest) : string.Empty,
        LimiterWords.Evidence(passage.Finding) ?? string.Empty, passage.RunId);
}

/// <summary>An offer that answers.</summary>
/// <param name="MachineId">Null for a build.</param>
/// <param name="Parts">Of a build.</param>
/// <param name="More">What it costs more than the one before.</param>
/// <param name="Headroom">The least, over all passages.</param>
/// <param name="Chance">That all of the work holds, by the model's band, 0 to 1.</param>
/// <param name="StartSeconds">The longest that playing takes to begin.</param>
/// <param name="ScrubSeconds">The longest that a frame takes to show while scrubbing.</param>
/// <param name="Weakest">What fails first as the work grows, a phrase.</param>
public sealed record StepRow(
    string Name, string? MachineId, decimal Price, decimal? More, bool WithinBudget, double Headroom, double Chance,
    double StartSeconds, double ScrubSeconds, string Weakest, MachineForm? Form, double? Decibels, IReadOnlyList<PricedPart> Parts)
{
    /// <summary>Whether it is the one to buy.</summary>
    public bool IsRecommended { get; init; }

    public static StepRow Of(Step step, Brief brief, IReadOnlyList<string> timelines) => new(
        step.Offer.Machine.Name, step.Offer.Build is null ? step.Offer.Machine.Id : null, step.Offer.Price, step.More,
        !(step.Offer.Price > brief.Budget), step.Weakest.Headroom, step.Chance,
        step.Wait.Start.TotalSeconds, step.Wait.Scrub.TotalSeconds,
        $"{AnswerWords.Of(step.Weakest.Tightest)}, in passage {step.Weakest.Passage + 1}"
            + (timelines.Count > 1 ? $" of {timelines[step.Weakest.Timeline]}" : string.Empty),
        step.Offer.Form, step.Offer.Decibels,
        [.. step.Offer.Build?.Parts.Select(part => new PricedPart(part.Id, part.Name, part.Price)) ?? []]);
}

public sealed record PricedPart(string Id, string Name, decimal Price);
