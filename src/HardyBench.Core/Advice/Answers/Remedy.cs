using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Advice.Answers;

/// <summary>A way of working that may spare a new machine, the least that is given up first.</summary>
public enum RemedyKind
{
    /// <summary>Nothing else stays open.</summary>
    CloseOthers,

    /// <summary>All-intra copies of the same raster in place of long-GOP footage.</summary>
    Intermediates,

    PreRenders,
    HalfProxies,
    QuarterProxies,
    HalfScale,
    QuarterScale,

    /// <summary>Every second frame of a timeline at a high rate.</summary>
    HalfRate,
}

/// <summary>What one or two ways of working come to.</summary>
/// <param name="Kinds">Together.</param>
/// <param name="Holding">Passages that hold so, of those that have a verdict.</param>
/// <param name="Fixed">Those of them that do not hold without it.</param>
/// <param name="Limiter">Of the first that still fails; null where none does.</param>
/// <param name="Bytes">Disk that it takes.</param>
/// <param name="HasRoom">Whether every passage has the required headroom.</param>
/// <param name="InTime">Whether pictures appear as early as required.</param>
public sealed record Remedy(
    IReadOnlyList<RemedyKind> Kinds, int Holding, int Fixed, int Judged, Limiter? Limiter, double Bytes, bool HasRoom = true,
    bool InTime = true)
{
    /// <summary>How long the machine takes to make what lies on that disk, and how long what it is made of plays (footage, each clip once,
    /// or passages), by timeline of the brief.</summary>
    public IReadOnlyList<(TimeSpan Making, TimeSpan Playing)> Made { get; init; } = [];

    /// <summary>Hours a week that making takes; null where the brief does not say how much footage comes.</summary>
    public double? HoursAWeek(Brief brief) => brief.HoursAWeek is not { Count: > 0 } hours ? null
        : brief.Timelines.Zip(Made, (id, made) => hours.GetValueOrDefault(id) * (made.Making / made.Playing)).Sum();

    /// <summary>Disk that copies of all footage take that the brief wants stored; null where it does not say how much, and for ways that
    /// copy no footage.</summary>
    public double? StoredBytes(Brief brief)
    {
        var playing = Made.Sum(one => one.Playing.TotalHours);
        return brief.StoredHours is { } kept && Bytes > 0 && playing > 0 && !Kinds.Contains(RemedyKind.PreRenders)
            ? kept * Bytes / playing
            : null;
    }

    /// <summary>Whether all of the work holds with it, with the required headroom, and pictures appear no later than is
    /// asked.</summary>
    public bool Suffices => Holding == Judged && HasRoom && InTime;

    /// <summary>Whether it suffices and the brief accepts all of it.</summary>
    public bool IsAcceptable(Brief brief) => Suffices && Kinds.All(kind => brief.MayUse?.Contains(kind) == true);

    /// <summary>Whether it does not help.</summary>
    public bool IsUseless => Fixed == 0 && !Suffices;
}

/// <summary>Tries ways of working on a machine that is there.</summary>
public static class Remedies
{
    /// <summary>Every single way; where none suffices every pair of those that help, and the pairs that suffice; where none does,
    /// the threes that do: each played on the model.</summary>
    /// <param name="plans">One a timeline of the brief, on the machine.</param>
    /// <param name="asked">Of every passage besides that it holds; null for nothing.</param>
    /// <returns>Those that suffice first; none where everything holds already.</returns>
    /// <exception cref="OperationCanceledException">It was stopped.</exception>
    public static IReadOnlyList<Remedy> For(IReadOnlyList<PlaybackPlan> plans, Asked? asked = null, CancellationToken stop = default)
    {
        asked ??= Asked.Nothing;
        var before = Findings(plans, asked);
        if (!before.Exists(finding => finding.Fails) && HasRoom(plans, asked) && InTime(plans, asked))
        {
            return [];
        }

        var single = Enum.GetValues<RemedyKind>()
            .Where(kind => plans.Any(plan => With(plan, kind) != plan))
            .Select(kind => Try([kind])).ToList();
        List<Remedy> all = [.. single];
        for (var size = 2; size <= MaxTogether && !all.Exists(remedy => remedy.Suffices); size++)
        {
            all.AddRange(Together([.. single.SelectMany(remedy => remedy.Kinds)], size)
                .Where(kinds => (size == 2 && kinds.All(FixesSome)) || MaySuffice(plans, asked, kinds))
                .Select(Try)
                .Where(remedy => remedy.Suffices || size == 2));
        }

        return [.. all.OrderByDescending(remedy => remedy.Suffices).ThenBy(remedy => remedy.Kinds.Count)
            .ThenByDescending(remedy => remedy.Fixed).ThenBy(remedy => remedy.Kinds[0])];

        Remedy Try(IReadOnlyList<RemedyKind> kinds)
        {
            stop.ThrowIfCancellationRequested();
            return Tried(plans, asked, before, kinds);
        }

        bool FixesSome(RemedyKind kind) => single.Exists(remedy => remedy.Kinds[0] == kind && !remedy.IsUseless);
    }

    /// <summary>More ways at once than this nobody is asked to work in.</summary>
    private const int MaxTogether = 3;

    /// <summary>Every so many of them that are not one thing twice, in their order.</summary>
    private static IEnumerable<IReadOnlyList<RemedyKind>> Together(IReadOnlyList<RemedyKind> kinds, int size) => size == 0
        ? [[]]
        : from shorter in Together(kinds, size - 1)
          from kind in kinds
          where (shorter is [] || kind > shorter[^1]) && !shorter.Any(other => AreOneChange(other, kind))
          select shorter.Append(kind).ToList();

    /// <summary>Without the loads that say why not, which are half the work.</summary>
    private static bool MaySuffice(IReadOnlyList<PlaybackPlan> plans, Asked asked, IReadOnlyList<RemedyKind> kinds)
    {
        var with = plans.Select(plan => StandInAids.Apply(kinds.Aggregate(plan, With))).ToList();
        return HasRoom(with, asked) && InTime(with, asked) && new Forecaster(with, asked.Day).Holds(with[0].Machine);
    }

    /// <summary>A rate of which half is still fluent. Common practice, no source.</summary>
    private const double HighRate = 40;

    /// <summary>The same work done in another way; an equal plan where that changes nothing.</summary>
    public static PlaybackPlan With(PlaybackPlan plan, RemedyKind kind) => kind switch
    {
        RemedyKind.Intermediates => StandInAids.AsIntermediates(plan),
        RemedyKind.HalfRate =>
            plan.Timeline.Rate.FramesPerSecond < HighRate ? plan : plan with { Timeline = plan.Timeline.AtHalfRate() },
        _ => plan with { Settings = With(plan.Settings, kind) },
    };

    private static PlaybackSettings With(PlaybackSettings settings, RemedyKind kind) => kind switch
    {
        RemedyKind.CloseOthers => settings with { Others = null },
        RemedyKind.PreRenders => settings with { PreRenders = true },
        RemedyKind.HalfProxies => settings with { Proxies = Proxies.Half },
        RemedyKind.QuarterProxies => settings with { Proxies = Proxies.Quarter },
        RemedyKind.HalfScale => settings with { Scale = (PreviewScale)Math.Max((int)settings.Scale, (int)PreviewScale.Half) },
        _ => settings with { Scale = (PreviewScale)Math.Max((int)settings.Scale, (int)PreviewScale.Quarter) },
    };

    private static bool AreOneChange(RemedyKind one, RemedyKind other) => (one, other)
        is (RemedyKind.HalfProxies, RemedyKind.QuarterProxies) or (RemedyKind.HalfScale, RemedyKind.QuarterScale)
            or (RemedyKind.Intermediates, RemedyKind.HalfProxies or RemedyKind.QuarterProxies);

    private static Remedy Tried(
        IReadOnlyList<PlaybackPlan> plans, Asked asked, List<PassageFinding> before, IReadOnlyList<RemedyKind> kinds)
    {
        var with = plans
            .Select(plan => StandInAids.Apply(kinds.Aggregate(plan, With))).ToList();
        var after = Findings(with, asked);
        var judged = before.Zip(after).Where(pair => pair.First.Verdict is not null).ToList();
        return new Remedy(
            kinds,
            judged.Count(pair => pair.Second.Verdict == Verdict.Holds),
            judged.Count(pair => pair.First.Fails && pair.Second.Verdict == Verdict.Holds),
            judged.Count,
            after.Find(finding => finding.Fails)?.Limiter?.Limiter,
            plans.Zip(with, StandInAids.Bytes).Sum(),
            HasRoom(with, asked),
            InTime(with, asked))
        {
            Made =
            [
                .. plans.Zip(with, (plan, aided) =>
                    (StandInAids.Preparation(plan, aided), kinds.Contains(RemedyKind.PreRenders)
                        ? plan.Timeline.Rate.StartOf(plan.Timeline.FrameCount)
                        : StandInAids.Footage(plan))),
            ],
        };
    }

    private static bool HasRoom(IReadOnlyList<PlaybackPlan> plans, Asked asked) =>
        new Forecaster(plans, asked.Day).Of(plans[0].Machine).All(forecast => forecast.Headroom >= asked.Headroom);

    private static bool InTime(IReadOnlyList<PlaybackPlan> plans, Asked asked) =>
        asked.Late(() => new Forecaster(plans, asked.Day).Wait(plans[0].Machine)) is null;

    private static List<PassageFinding> Findings(IReadOnlyList<PlaybackPlan> plans, Asked asked) =>
        [.. new Forecaster(plans, asked.Day).Played(plans[0].Machine).SelectMany(run => RunFindings.Of(run))];
}
