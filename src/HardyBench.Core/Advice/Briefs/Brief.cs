using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Advice.Briefs;

/// <summary>What somebody needs a machine for, and what it may cost and be. All but the name and the work has a sensible default.</summary>
/// <param name="Timelines">Ids of the timelines that stand for the work: every passage of them has to hold.</param>
public sealed record Brief(string Id, string Name, IReadOnlyList<string> Timelines)
{
    /// <summary>Hours of such footage that come in a week, by timeline; null or lacking where nobody has said. It decides nothing, but
    /// tells what a way of working costs.</summary>
    public IReadOnlyDictionary<string, double>? HoursAWeek { get; init; }

    /// <summary>The preview scale at which it is good enough.</summary>
    public PreviewScale Scale { get; init; } = PreviewScale.Full;

    /// <summary>How much the work may grow: every passage must have so much headroom. 1 for none.</summary>
    public double Growth { get; init; } = 1;

    /// <summary>The longest that playing may take to begin, in seconds; null for any time.</summary>
    public double? MostStartSeconds { get; init; }

    /// <summary>The longest that a frame may take to show when the hand goes to it, in seconds; null for any time.</summary>
    public double? MostScrubSeconds { get; init; }

    /// <summary>What stays open beside it; null for nothing.</summary>
    public OtherPrograms? Others { get; init; }

    /// <summary>Forms that will do; null or empty for any.</summary>
    public IReadOnlyList<MachineForm>? Forms { get; init; }

    /// <summary>The most noise at the operator's seat in dB(A); null for any. A machine whose noise nobody has stated is let pass, and
    /// that is said.</summary>
    public double? MostDecibels { get; init; }

    /// <summary>The most it may cost, in <see cref="Machine.Currency"/>; null for any sum.</summary>
    public decimal? Budget { get; init; }

    /// <summary>The id of a machine that is there already; null for none.</summary>
    public string? Owned { get; init; }

    /// <summary>Whether machines put together from parts are offered too.</summary>
    public bool Builds { get; init; } = true;

    /// <summary>Ways of working that are acceptable in place of a new machine; null or empty for none.</summary>
    public IReadOnlyList<RemedyKind>? MayUse { get; init; }

    /// <summary>Why a machine of a form and a noise is none for it; null where it may be. What nobody has stated is let pass.</summary>
    public OutsideOf? Outside(MachineForm? form, double? decibels) =>
        Forms is { Count: > 0 } forms && form is { } its && !forms.Contains(its) ? OutsideOf.Form
        : decibels > MostDecibels ? OutsideOf.Noise
        : null;

    /// <summary>What is asked of every passage besides that it holds.</summary>
    public Asked Asked() => new(Growth, MostStartSeconds, MostScrubSeconds);

    /// <summary>How everything is played for it.</summary>
    public PlaybackSettings Settings => new(Scale) { Others = Others };
}

/// <summary>What keeps a machine from answering a brief though it plays the work.</summary>
public enum OutsideOf
{
    Form,
    Noise,

    /// <summary>Headroom for the work to grow.</summary>
    Room,

    /// <summary>Playing begins too late.</summary>
    Start,

    /// <summary>A frame shows too late when the hand goes to it.</summary>
    Scrub,
}
