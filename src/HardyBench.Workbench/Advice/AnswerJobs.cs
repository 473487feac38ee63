using HardyBench.Core.Advice;
using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Formats.Advice;
using HardyBench.Formats.Timelines;
using HardyBench.Media.Clips;
using HardyBench.Store;
using HardyBench.Workbench.Demo;
using HardyBench.Workbench.Machines;
using HardyBench.Workbench.Programs;
using HardyBench.Workbench.Timelines;

namespace HardyBench.Workbench.Advice;

/// <summary>Answers briefs: the machine that is owned, what could be done with it, what could be bought.</summary>
/// <param name="twin">This machine as it was measured; null before that.</param>
public sealed class AnswerJobs(
    CatalogueJobs catalogue, TimelineJobs timelines, MachineJobs machines, ProgramJobs programs, ClipFolder clips, RunReader runs,
    Func<Task<Machine?>> twin)
    : IDisposable
{
    /// <summary>Two calculations at once only take longer.</summary>
    private readonly SemaphoreSlim one = new(1);

    private Foundations? known;

    /// <exception cref="Core.UnknownThingException">A timeline, machine or editing program of it is gone.</exception>
    /// <exception cref="PlanRefusedException">A timeline of it cannot be played as it stands.</exception>
    /// <exception cref="BriefRefusedException">No passage of it is long enough for a verdict.</exception>
    /// <exception cref="OperationCanceledException">Nobody waits for it any more.</exception>
    public async Task<Answer> AnswerAsync(Brief brief, CancellationToken stop)
    {
        BriefLimits.Checked(brief);
        var plans = new List<PlaybackPlan>();
        var shelf = await machines.AllAsync();
        var program = brief.Program is { } named ? await programs.FindAsync(named) : null;
        foreach (var id in brief.Timelines)
        {
            var timeline = (await timelines.FindAsync(id)).Timeline;
            // Each offer brings its machine; this one is a placeholder.
            plans.Add(new PlaybackPlan(timeline, clips.Clips, DemoMachines.All[0], brief.SettingsIn(program)).Checked());
        }

        if (!plans.Exists(plan =>
            plan.Timeline.Passages.Any(passage => VerdictLimits.Default.Judges(passage.FrameCount, plan.Timeline.Rate))))
        {
            throw new BriefRefusedException("Every passage of its timelines is shorter than two seconds, too short for a verdict. Choose "
                + "another timeline, or make a passage longer.");
        }

        var owned = brief.Owned is { } there ? await machines.FindAsync(there) : null;
        // This machine is predicted by its twin, where it was measured.
        var predicted = owned is { Kind: MachineKind.Real }
            ? await twin()
            : owned;
        var forecaster = new Forecaster(plans, brief.Day());
        var parts = await catalogue.AllAsync();
        var (_, shortlist, simulated, remedies, changes, ladder) = await FoundationsAsync(
            brief, plans, shelf, parts, predicted, forecaster, stop);
        // The wait for a picture was not measured by playing; the twin predicts it.
        var check = (owned is { Kind: MachineKind.Real } ? await MeasuredAsync(plans, owned) : null) is { } measured
            ? measured with { Wait = simulated?.Wait }
            : simulated;
        var best = shortlist.Best(brief.Budget) ?? shortlist.Nearest;
        var pick = best is null ? null
            : Check(plans, best.Offer.Machine, forecaster) with { IsBuild = best.Offer.Build is not null };
        var kind = Answer.KindOf(brief, check, remedies, ladder.Path, shortlist);
        return new Answer(brief, kind, check, remedies, changes, ladder, shortlist, pick)
        {
            Program = program,
            Stored = StoredFootage.Of(brief, plans),
            TwinHolds = check is { IsMeasured: true, Holds: false } && simulated is { Holds: true },
        };
    }

    /// <summary>Titles of a brief's timelines, in its order.</summary>
    /// <exception cref="Core.UnknownThingException">One is gone.</exception>
    public async Task<IReadOnlyList<string>> TitlesAsync(Brief brief)
    {
        var titles = new List<string>();
        foreach (var id in brief.Timelines)
        {
            titles.Add((await timelines.FindAsync(id)).Timeline.Title);
        }

        return titles;
    }

    /// <summary>One machine passage by passage.</summary>
    private static MachineCheck Check(List<PlaybackPlan> plans, Machine machine, Forecaster forecaster)
    {
        var forecasts = forecaster.Of(machine).ToDictionary(forecast => (forecast.Timeline, forecast.Passage));
        return new MachineCheck(
            machine,
            [.. forecaster.Played(machine).SelectMany((run, place) => RunFindings.Of(run).Select(finding =>
                new CheckedPassage(place, finding, null, forecasts.GetValueOrDefault((place, finding.Index)))))],
            IsMeasured: false)
        {
            Wait = forecaster.Wait(machine),
            Extrapolates = machine.Costs is { } costs
                && plans.Exists(plan => plan.PlayedClipIds.Any(id => costs.Extrapolates(plan.Clips[id].Format))),
        };
    }

    /// <returns>Null where this machine has no run of everything that counts.</returns>
    private async Task<MachineCheck?> MeasuredAsync(List<PlaybackPlan> plans, Machine machine)
    {
        var passages = new List<CheckedPassage>();
        foreach (var (place, plan) in plans.Index())
        {
            // Only a bare run at full scale counts, and only where nothing is asked beside it.
            if (!plan.Settings.IsBare || await runs.NewestBareAsync(TimelineJson.Digest(plan.Timeline), machine) is not { } run)
            {
                return null;
            }

            var findings = RunFindings.Of(run.Run);
            if (Disturbance.Of(run.Run, findings) is not null)
            {
                return null;
            }

            passages.AddRange(findings.Select(finding => new CheckedPassage(place, finding, run.Id, null)));
        }

        return new MachineCheck(machine, passages, IsMeasured: true);
    }

    /// <summary>All that does not depend on the budget, so that another one needs no more calculation. What was asked for last is
    /// kept.</summary>
    private async Task<Foundations> FoundationsAsync(
        Brief brief, List<PlaybackPlan> plans, IReadOnlyList<Machine> shelf, IReadOnlyList<Part> parts, Machine? owned,
        Forecaster forecaster, CancellationToken stop)
    {
        var work = WorkOf(brief, plans, owned is null ? shelf : [.. shelf, owned], parts);
        await one.WaitAsync(stop);
        try
        {
            return known = known?.Work == work ? known : await Task.Run(Calculate, stop);
        }
        finally
        {
            one.Release();
        }

        Foundations Calculate()
        {
            var shortlist = Shortlist.For(
                brief,
                [.. shelf.Select(Offer.Of).OfType<Offer>(), .. new Catalogue(brief.Builds ? parts : []).Builds().Select(Offer.Of)],
                forecaster,
                stop);
            var check = owned is null ? null : Check(plans, owned, forecaster);
            var remedies = check is null || check.Answers(brief) ? []
                : Remedies.For([.. plans.Select(plan => plan with { Machine = owned! })], brief.Asked(), stop);
            var changes = check is null || check.Answers(brief) ? [] : PartChange.Of(owned!, forecaster);
            var ladder = check is null || check.Answers(brief) ? Ladder.None : Ladder.For(owned!, brief.Asked(), parts, forecaster, stop);
            return new Foundations(work, shortlist, check, remedies, changes, ladder);
        }
    }

    public void Dispose() => one.Dispose();

    /// <summary>Everything that an answer depends on but the budget and what tells only of costs.</summary>
    private static string WorkOf(Brief brief, List<PlaybackPlan> plans, IReadOnlyList<Machine> shelf, IReadOnlyList<Part> parts) =>
        string.Join('\n',
        [
            BriefDigest.Of(brief with
            {
                Id = string.Empty, Name = string.Empty, Budget = null, MayUse = null, HoursAWeek = null, StoredHours = null,
            }),
            BriefDigest.Of(plans[0].Settings),
            .. plans.Select(plan => TimelineJson.Digest(plan.Timeline)),
            .. plans.Select(plan => BriefDigest.Of(plan.PlayedClipIds.Select(id => plan.Clips[id].Format))),
            BriefDigest.Of(shelf), BriefDigest.Of(parts),
        ]);

    /// <param name="Work">What it depends on.</param>
    /// <param name="Owned">Null without a machine that is there, and for this machine without a twin.</param>
    private sealed record Foundations(
        string Work, Shortlist Shortlist, MachineCheck? Owned, IReadOnlyList<Remedy> Remedies, IReadOnlyList<PartChange> Changes,
        Ladder Ladder);
}
