using HardyBench.Media.Clips;

namespace HardyBench.Server.Clips;

/// <summary>Passes progress on at once and on the thread that reports it.</summary>
internal sealed class MakingReporter(Action<MakingProgress> report) : IProgress<MakingProgress>
{
    public void Report(MakingProgress value) => report(value);
}
