using HardyBench.Core.Playback;

namespace HardyBench.Telemetry;

/// <summary>Reads one part of a machine. The first call only remembers where counters stand.</summary>
public interface ILoadReader
{
    /// <param name="at">Now, from the key of the run.</param>
    /// <param name="elapsed">Time since the call before.</param>
    void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into);
}

/// <summary>Samples every load ten times a second while a run plays.</summary>
/// <param name="owner">The process that asked for the run; null where it is this one.</param>
/// <param name="footage">Reads what the player itself knows of its footage; null for nothing.</param>
/// <param name="workers">Processes that work for this one; null for none ever.</param>
public sealed class LoadSampler(
    SystemFiles files, TimeProvider time, int? owner = null, ILoadReader? footage = null, Func<IEnumerable<Worker>>? workers = null)
    : IDisposable
{
    public static readonly TimeSpan Interval = TimeSpan.FromMilliseconds(100);

    private readonly ILoadReader[] readers =
    [
        new CoreLoads(files),
        new OwnThreads(files, owner, workers),
        new MemoryLoads(files),
        new DriveLoads(files),
        new ClockAndHeat(files),
        new GraphicsLoads(files),
        new TimeKeeping(files, time),
        new SlowReader(new OwnThreadsOneByOne(files)),
        new SlowReader(new PackagePower(files)),
        new SlowReader(new PowerSupplies(files)),
        new SlowReader(new Fans(files)),
        .. GraphicsCommand.Installed(GraphicsLoads.CardsOf(files).Count),
        new SlowReader(new GraphicsClients(files)),
        .. footage is null ? [] : new[] { footage },
    ];

    /// <summary>Which device each reading is of.</summary>
    public static IReadOnlyList<LoadSource> SourcesOf(SystemFiles files) =>
        [
            .. new DriveLoads(files).Sources,
            .. new GraphicsLoads(files).Sources,
            .. GraphicsCommand.Installed(GraphicsLoads.CardsOf(files).Count).SelectMany(command => command.Sources),
        ];

    /// <summary>One sample of everything.</summary>
    public IReadOnlyList<LoadReading> Read(TimeSpan at, TimeSpan elapsed)
    {
        var readings = new List<LoadReading>();
        foreach (var reader in readers)
        {
            reader.Read(at, elapsed, readings);
        }

        return readings;
    }

    public void Sample(RunClock clock, RunJournal journal, CancellationToken over)
    {
        var last = clock.Now;
        Read(last, TimeSpan.Zero);
        while (!over.WaitHandle.WaitOne(Interval))
        {
            var now = clock.Now;
            journal.Sampled(Read(now, now - last));
            last = now;
        }
    }

    public void Dispose()
    {
        foreach (var reader in readers.OfType<IDisposable>())
        {
            reader.Dispose();
        }
    }
}
