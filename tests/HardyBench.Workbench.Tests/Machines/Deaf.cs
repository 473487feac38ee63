using HardyBench.Core.Playback;

namespace HardyBench.Workbench.Tests.Machines;

/// <summary>Hears nothing of a run.</summary>
internal sealed class Deaf : IRunObserver
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
