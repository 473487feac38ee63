namespace HardyBench.Workbench;

/// <summary>Tells of progress at once, on the thread that makes it.</summary>
public sealed class Direct<T>(Action<T> report) : IProgress<T>
{
    public void Report(T value) => report(value);
}
