using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Formats.PlayerProtocol;
using HardyBench.Media.Aids;
using HardyBench.Media.Clips;
using HardyBench.Workbench.Playing;

namespace HardyBench.Workbench.Aids;

/// <summary>Proxies and pre-renders: making them, and playing them in place of the originals.</summary>
/// <param name="effects">Where the effects of renders have their files.</param>
public sealed class AidJobs(AidFolder folder, ClipFolder clips, PlayerProgram program, EffectPlaces effects)
{
    /// <summary>Makes the aids that a plan's settings ask for and that are missing: proxies of its clips, renders of its
    /// passages. Stand-ins need none.</summary>
    /// <param name="passage">Pre-renders: only this passage, from 0; null for all.</param>
    /// <returns>What was asked for, made now or before.</returns>
    /// <exception cref="CreationException">One could not be made; those before it are kept.</exception>
    public async Task<IReadOnlyList<AidNote>> MakeAsync(
        PlaybackPlan plan, int? passage, IProgress<CreationProgress>? progress, CancellationToken stop)
    {
        var notes = new List<AidNote>();
        var proxies = plan.Settings.Proxies == Proxies.None ? [] : plan.Timeline.ClipIds;
        var passages = !plan.Settings.PreRenders ? []
            : passage is { } one ? [one]
            : Enumerable.Range(0, plan.Timeline.Passages.Count).ToList();
        var all = proxies.Count + passages.Count;
        foreach (var id in proxies)
        {
            progress?.Report(new CreationProgress($"proxy of {id}", notes.Count, all, (double)notes.Count / all));
            var clip = plan.Clips[id];
            notes.Add(await new ProxyCreator(folder).MakeAsync(clip, clips.PathOf(clip), plan.Settings.Proxies, stop));
        }

        foreach (var index in passages)
        {
            var done = notes.Count;
            var share = new Progress<double>(part => progress?.Report(
                new CreationProgress($"pre-render of passage {index + 1}", done, all, (done + part) / all)));
            notes.Add(await new PreRenderer(folder, new HostPictures(program, clips, effects)).RenderAsync(plan, index, share, stop));
        }

        progress?.Report(new CreationProgress(null, all, all, 1));
        return notes;
    }

    /// <summary>The render of each passage as the plan stands, or null where there is none.</summary>
    public IReadOnlyList<AidNote?> Renders(PlaybackPlan plan) =>
        [.. plan.Timeline.Passages.Select((_, index) => folder.Find(PreRenderer.KeyOf(plan, index)))];

    /// <summary>Stand-ins take proxies as they would be; this machine plays what is made.</summary>
    public PlaybackPlan Apply(PlaybackPlan plan) =>
        plan.Machine.Kind == MachineKind.StandIn ? StandInAids.Apply(plan) : folder.Apply(plan);
}
