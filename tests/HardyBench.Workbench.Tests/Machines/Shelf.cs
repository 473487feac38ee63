using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Workbench.Demo;

namespace HardyBench.Workbench.Tests.Machines;

/// <summary>The stand-ins that ship, and what they are given to play.</summary>
internal static class Shelf
{
    public static Machine Of(string id) => DemoMachines.All.Single(machine => machine.Id == id);

    /// <summary>One passage, each layer with the same effects.</summary>
    public static PlaybackPlan PlanOf(
        Machine machine, ClipFormat[] layers, FrameRate rate, int frames, PreviewScale scale, Raster raster, params Effect[] effects)
    {
        var clips = layers.Index()
            .ToDictionary(layer => $"c{layer.Index}", layer => new Clip($"c{layer.Index}", "clip", layer.Item, frames, null));
        var passage = new Passage("asked", frames, [.. clips.Keys.Select(id => new Layer(id, effects))], []);
        return new PlaybackPlan(new Timeline("t", "T", raster, rate, [passage]), clips, machine, new PlaybackSettings(scale));
    }

    public static Run PlayOf(PlaybackPlan plan) =>
        new StandInPlayback(TimeProvider.System).PlayAsync(plan, new NoObserver(), CancellationToken.None).Result;
}
