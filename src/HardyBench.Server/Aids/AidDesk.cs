using HardyBench.Core.Playback;
using HardyBench.Server.Background;
using HardyBench.Server.Live;
using HardyBench.Server.Plays;
using HardyBench.Workbench;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace HardyBench.Server.Aids;

/// <summary>Renders passages in the background.</summary>
public sealed class AidDesk(
    Bench bench, ThisMachineInUse inUse, LiveFeed live, IHostApplicationLifetime lifetime, ILogger<AidDesk> log, TimeProvider time)
{
    private static readonly PlaybackSettings WithRenders = new(PreRenders: true);

    private static readonly WorkKind Rendering = new(
        "passages are being rendered", IsMeasured: false, "Cancelled. The renders that were finished stay.",
        TimeSpan.FromMilliseconds(250), (page, now) => page.Aids(now));

    private readonly BackgroundWork work = new(Rendering, inUse, live, lifetime, log, time);

    /// <summary>How it stands now.</summary>
    public CreationView Now => work.Now;

    /// <summary>Renders every passage that has no render yet, after what was asked for before.</summary>
    public async Task<CreationView> StartAsync(string timelineId)
    {
        var plan = await bench.Plays.PlanAsync(timelineId, bench.Machines.Host.Id, WithRenders);
        _ = work.Add(plan.Timeline.Passages.Count, (progress, stop) => bench.Aids.MakeAsync(plan, null, progress, stop));
        return Now;
    }

    /// <summary>What is rendered of a timeline as it stands now.</summary>
    public async Task<IReadOnlyList<RenderView>> RendersAsync(string timelineId)
    {
        var plan = await bench.Plays.PlanAsync(timelineId, bench.Machines.Host.Id, WithRenders);
        return [.. bench.Aids.Renders(plan).Select((note, index) => new RenderView(index + 1, note?.Took.TotalSeconds, note?.Bytes / 1e6))];
    }
}

/// <summary>The render of a passage; both figures null when there is none for it as it stands.</summary>
/// <param name="Seconds">How long rendering it took.</param>
public sealed record RenderView(int Number, double? Seconds, double? Megabytes);
