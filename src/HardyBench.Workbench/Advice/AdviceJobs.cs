using HardyBench.Core.Advice;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Formats.Timelines;
using HardyBench.Media.Clips;
using HardyBench.Store;
using HardyBench.Workbench.Machines;
using HardyBench.Workbench.Plays;
using HardyBench.Workbench.Timelines;

namespace HardyBench.Workbench.Advice;

/// <summary>Which machine to take.</summary>
public sealed class AdviceJobs(TimelineJobs timelines, MachineJobs machines, ClipFolder clips, RunReader runs, PlayJobs plays) : IDisposable
{
    private readonly SemaphoreSlim one = new(1);

    /// <summary>Which machine to take for a timeline at full scale, by what has been played with its clips as they are. Nothing is
    /// played for it.</summary>
    public async Task<Pick> AdviseAsync(string timelineId)
    {
        var (timeline, candidates) = ((await timelines.FindAsync(timelineId)).Timeline, new List<Candidate>());
        // A twin stands for this machine, which is a candidate itself.
        foreach (var machine in (await machines.AllAsync()).Where(machine => !machine.IsTwin))
        {
            var (_, run) = await NewestAsync(timeline, machine);
            candidates.Add(Candidate.Of(machine, run?.Run));
        }

        return Pick.From(candidates);
    }

    /// <summary>Plays a timeline on every stand-in that has not played it yet with its clips as they are.</summary>
    /// <param name="stop">Heard between one machine and the next.</param>
    /// <param name="played">Called whenever one has.</param>
    /// <returns>How many played.</returns>
    public async Task<int> PlayStandInsAsync(string timelineId, CancellationToken stop, Func<Task>? played = null)
    {
        // One after another, so that two who ask at once do not both play what is missing.
        await one.WaitAsync(stop);
        try
        {
            var (timeline, count) = ((await timelines.FindAsync(timelineId)).Timeline, 0);
            foreach (var machine in (await machines.AllAsync()).Where(machine => machine.Kind == MachineKind.StandIn))
            {
                stop.ThrowIfCancellationRequested();
                if (await NewestAsync(timeline, machine) is (var plan, null))
                {
                    // To its end in any case: a page that was left makes no stopped runs.
                    await plays.PlayAsync(plan, null, CancellationToken.None);
                    count++;
                    await (played?.Invoke() ?? Task.CompletedTask);
                }
            }

            return count;
        }
        finally
        {
            one.Release();
        }
    }

    /// <summary>A bare plan for a machine, and its newest run; null where there is none with the clips as they are: those made or measured
    /// since then have other figures than those a stand-in went by.</summary>
    /// <exception cref="PlanRefusedException">The timeline cannot be played as it stands.</exception>
    private async Task<(PlaybackPlan Plan, StoredRun? Run)> NewestAsync(Timeline timeline, Machine machine)
    {
        var plan = new PlaybackPlan(timeline, clips.Clips, machine, new PlaybackSettings()).Checked();
        var run = await runs.NewestBareAsync(TimelineJson.Digest(timeline), machine);
        return (
            plan,
            run is null || (machine.Kind == MachineKind.StandIn && !plan.ClipChecksums.SequenceEqual(run.Run.Header.ClipChecksums))
                ? null
                : run
        );
    }

    public void Dispose() => one.Dispose();
}
