using HardyBench.Server.Background;
using HardyBench.Server.Live;
using HardyBench.Server.Plays;
using HardyBench.Workbench;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace HardyBench.Server.Clips;

/// <summary>Creates clips in the background.</summary>
public sealed class ClipDesk(
    Bench bench, ThisMachineInUse inUse, LiveFeed live, IHostApplicationLifetime lifetime, ILogger<ClipDesk> log, TimeProvider time)
{
    private static readonly WorkKind Creating = new(
        "clips are being created", IsMeasured: false, WhenCancelled: null, TimeSpan.FromMilliseconds(250), (page, now) => page.Making(now));

    private readonly BackgroundWork work = new(Creating, inUse, live, lifetime, log, time);

    /// <summary>How it stands now.</summary>
    public CreationView Now => work.Now;

    /// <summary>Creates what is missing, after what was asked for before.</summary>
    /// <param name="ids">The recipes wanted; null for those of the demo.</param>
    /// <returns>Ends with the work, however it ends.</returns>
    public Task Start(IReadOnlyList<string>? ids) =>
        work.Add(bench.Clips.Missing(ids).Count, (progress, stop) => bench.ClipCreator.MakeAsync(ids, progress, stop));

    /// <summary>Cancels; finished clips stay.</summary>
    public void Cancel() => work.Cancel();
}
