using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.Playback.Programs;

namespace HardyBench.Core.Advice.Answers;

/// <summary>How a machine plays the work of a brief, passage by passage.</summary>
/// <param name="Judged">One for every passage of every timeline, in order.</param>
/// <param name="IsMeasured">Whether it was played for real; else the model says so.</param>
public sealed record MachineCheck(Machine Machine, IReadOnlyList<CheckedPassage> Judged, bool IsMeasured)
{
    /// <summary>Whether it is put together from parts, and so on no shelf.</summary>
    public bool IsBuild { get; init; }

    /// <summary>Whether some of the footage lies outside what was measured on it.</summary>
    public bool Extrapolates { get; init; }

    /// <summary>The longest wait for a picture; null where nothing tells it.</summary>
    public GestureWait? Wait { get; init; }

    /// <summary>The first that does not hold; null where all do.</summary>
    public CheckedPassage? FirstFailure => Judged.FirstOrDefault(passage => passage.Finding.Fails);

    /// <summary>Whether every passage that has a verdict holds, and there is one.</summary>
    public bool Holds => FirstFailure is null && Judged.Any(passage => passage.Finding.Verdict == Verdict.Holds);

    /// <summary>What keeps a machine that holds from answering a brief; null where nothing does.</summary>
    public ExceededLimit? Lacks(Brief brief) => brief.Outside(Traits.Of(Machine))
        ?? (!Judged.Where(passage => passage.Finding.Verdict is not null)
            .All(passage => !((passage.Forecast?.Headroom ?? passage.Finding.Headroom) < brief.Growth))
            ? ExceededLimit.Room
            : brief.Asked().Late(() => Wait));

    /// <summary>Whether it holds, has the required headroom, and lies within the brief's limits.</summary>
    public bool Answers(Brief brief) => Holds && Lacks(brief) is null;
}

/// <param name="Timeline">Its place in the brief, from 0.</param>
/// <param name="RunId">The run it comes from; null where it was calculated for this answer only.</param>
/// <param name="Forecast">By the bottleneck law; null of a real machine and of a passage too short for a verdict.</param>
public sealed record CheckedPassage(int Timeline, PassageFinding Finding, long? RunId, Forecast? Forecast);

/// <summary>What a brief comes to.</summary>
public enum AnswerKind
{
    /// <summary>The machine that is owned does.</summary>
    KeepIt,

    /// <summary>The machine that is owned does when it is worked with in another way.</summary>
    ChangeMethod,

    /// <summary>The machine that is owned does with a part or two more, and that costs less than another machine.</summary>
    Upgrade,

    Buy,

    /// <summary>There is something, but it costs more than the budget.</summary>
    OverBudget,

    /// <summary>Nothing on offer plays all of it.</summary>
    Nothing,
}

/// <summary>The answer to a brief.</summary>
/// <param name="Owned">How the machine that is there plays it; null without one, or while it has not played.</param>
/// <param name="Remedies">For the machine that is there; none where it holds or is not simulated.</param>
/// <param name="Changes">What a single better part would bring to the machine that is there, likewise.</param>
/// <param name="Ladder">What parts that can be bought would bring to the machine that is there, likewise.</param>
/// <param name="Shortlist">Whatever it costs.</param>
/// <param name="Pick">What is recommended, passage by passage; beyond the budget the cheapest that answers, else what comes nearest.</param>
public sealed record Answer(
    Brief Brief, AnswerKind Kind, MachineCheck? Owned, IReadOnlyList<Remedy> Remedies, IReadOnlyList<PartChange> Changes,
    Ladder Ladder, Shortlist Shortlist, MachineCheck? Pick)
{
    /// <summary>What to buy, if anything is bought; null where the budget buys nothing that answers.</summary>
    public Step? Recommended => Shortlist.Recommended(Brief.Budget);

    /// <summary>The editing program that the work is done in; null for the product's own player.</summary>
    public EditingProgram? Program { get; init; }

    /// <summary>Null where the brief does not say how much footage is kept.</summary>
    public StoredFootage? Stored { get; init; }

    /// <summary>Whether the machine that is owned failed when it was played, though its twin plays all of it.</summary>
    public bool TwinHolds { get; init; }

    /// <summary>What is best done, in this order: nothing, work in another way, buy parts or a machine, whichever costs less.</summary>
    public static AnswerKind KindOf(
        Brief brief, MachineCheck? owned, IReadOnlyList<Remedy> remedies, Rung? path, Shortlist shortlist)
    {
        var canStay = owned?.Lacks(brief)?.IsOfMachine() != true;
        var parts = canStay ? path?.Price : null;
        var machine = shortlist.Best(brief.Budget)?.Offer.Price;
        return owned?.Answers(brief) == true ? AnswerKind.KeepIt
            : canStay && remedies.Any(remedy => remedy.IsAcceptable(brief)) ? AnswerKind.ChangeMethod
            : parts is { } sum && !(sum > brief.Budget) && !(machine < sum) ? AnswerKind.Upgrade
            : machine is { } price && !(price > brief.Budget) ? AnswerKind.Buy
            : (parts ?? machine) is not null ? AnswerKind.OverBudget
            : AnswerKind.Nothing;
    }
}
