using HardyBench.Core.Advice;
using HardyBench.Server.Live;
using HardyBench.Server.Plays;
using HardyBench.Workbench;

namespace HardyBench.Server.Timelines;

/// <summary>Gives advice, playing first on the stand-ins what has not been played. Simulating loads the machine, so while something is
/// measured here it says what is known so far.</summary>
public sealed class AdviceDesk(Bench bench, ThisMachineInUse inUse, LiveFeed live)
{
    public async Task<Pick> AdviseAsync(string timelineId, CancellationToken stop)
    {
        using (var work = inUse.TryCompute())
        {
            if (work is not null)
            {
                await bench.Advice.PlayStandInsAsync(timelineId, stop, () => live.Tell(page => page.RunsChanged()));
            }
        }

        return await bench.Advice.AdviseAsync(timelineId);
    }
}
