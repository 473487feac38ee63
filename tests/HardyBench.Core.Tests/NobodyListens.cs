using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests;

/// <summary>For runs whose end is all that matters.</summary>
internal sealed class NobodyListens : IRunObserver
{
    public void Started(RunHeader header)
    {
    }

    public void Progressed(RunProgress progress)
    {
    }

    public void Pictured(int frame, byte[] jpeg)
    {
    }
}
