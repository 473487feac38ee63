using System.Globalization;
using HardyBench.Core.Playback;

namespace HardyBench.Telemetry;

/// <summary>A process that works for this one.</summary>
/// <param name="Work">What all of it is for; null where its threads' names say so.</param>
public sealed record Worker(int Process, LoadKind? Work);

/// <summary>What our own processes and each kind of their threads take, in cores, from /proc.</summary>
/// <param name="owner">The process that asked for the run, all of which is the tool's own; null where it is this one.</param>
/// <param name="workers">Processes that work for this one, those that do so now; null for none ever.</param>
public sealed class OwnThreads(SystemFiles files, int? owner = null, Func<IEnumerable<Worker>>? workers = null) : ILoadReader, IDisposable
{
    internal const string Self = "proc/self/task";

    /// <summary>How often the name of a thread without a role is looked at again.</summary>
    private const int MaxLooks = 3;

    private readonly Dictionary<string, KnownThread> before = [];

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        var spent = new Dictionary<LoadKind, long>
        {
            [LoadKind.OwnProcess] = 0, [LoadKind.OwnDecode] = 0, [LoadKind.OwnEffects] = 0,
            [LoadKind.OwnPresenting] = 0, [LoadKind.OwnPictures] = 0, [LoadKind.OwnTool] = 0,
            [LoadKind.OwnEncode] = 0,
        };
        List<(string Path, LoadKind? Work)> threads =
        [
            .. ThreadsOf(Self, null),
            .. owner is { } asked ? ThreadsOf(FolderOf(asked), LoadKind.OwnTool) : [],
            .. workers?.Invoke().SelectMany(worker => ThreadsOf(FolderOf(worker.Process), worker.Work)) ?? [],
        ];
        foreach (var (thread, work) in threads)
        {
            if (!before.TryGetValue(thread, out var known))
            {
                before[thread] = known = new KnownThread(work ?? RoleOf(files, thread), files.Keep($"{thread}/schedstat"));
            }
            else if (work is null && known.Role == LoadKind.OwnTool && known.Looks++ < MaxLooks)
            {
                // A thread is there a moment before it has its name.
                known.Role = RoleOf(files, thread);
            }

            if (OnProcessor(known.Schedule.ReadText()) is not { } now)
            {
                continue;
            }

            spent[LoadKind.OwnProcess] += now - known.Nanoseconds;
            spent[known.Role] += now - known.Nanoseconds;
            known.Nanoseconds = now;
        }

        foreach (var gone in before.Keys.Except(threads.Select(thread => thread.Path)).ToList())
        {
            before[gone].Schedule.Dispose();
            before.Remove(gone);
        }

        if (elapsed > TimeSpan.Zero && threads.Count > 0)
        {
            into.AddRange(spent.Where(part => part.Key is not (LoadKind.OwnPictures or LoadKind.OwnEncode) || part.Value > 0).Select(part =>
                new LoadReading(at, part.Key, 0, (float)(part.Value / (elapsed.TotalSeconds * 1e9)))));
        }
    }

    private static string FolderOf(int process) => string.Create(CultureInfo.InvariantCulture, $"proc/{process}/task");

    private IEnumerable<(string Path, LoadKind? Work)> ThreadsOf(string folder, LoadKind? work) =>
        files.Names(folder).Select(thread => ($"{folder}/{thread}", work));

    public void Dispose()
    {
        foreach (var known in before.Values)
        {
            known.Schedule.Dispose();
        }

        before.Clear();
    }

    /// <summary>The first figure of schedstat is nanoseconds on a processor.</summary>
    internal static long? OnProcessor(string? text) =>
        text is not null
        && long.TryParse(
            text.AsSpan(0, Math.Max(0, text.IndexOf(' ', StringComparison.Ordinal))),
            NumberStyles.None,
            CultureInfo.InvariantCulture,
            out var spent
        )
            ? spent
            : null;

    /// <param name="thread">Its folder below the root.</param>
    internal static LoadKind RoleOf(SystemFiles files, string thread) => files.ReadText($"{thread}/comm")?.Trim() switch
    {
        ThreadRoles.Decode or ThreadRoles.Av1Decode => LoadKind.OwnDecode,
        ThreadRoles.Effects => LoadKind.OwnEffects,
        ThreadRoles.Present => LoadKind.OwnPresenting,
        ThreadRoles.Picture => LoadKind.OwnPictures,
        _ => LoadKind.OwnTool,
    };

    private sealed class KnownThread(LoadKind role, OpenSystemFile schedule)
    {
        public LoadKind Role { get; set; } = role;

        public int Looks { get; set; }

        public OpenSystemFile Schedule => schedule;

        public long Nanoseconds { get; set; }
    }
}

/// <summary>What each single thread that decodes or treats takes, in cores, where it is worth telling: a thread at one core is a limit
/// that no mean over cores shows. The presenter spins by design and is not among them.</summary>
public sealed class OwnThreadsOneByOne(SystemFiles files) : ILoadReader
{
    private const double MinReported = 0.02;

    private Dictionary<string, long> before = [];

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        var (now, told) = (new Dictionary<string, long>(), new List<LoadReading>());
        foreach (var thread in files.Names(OwnThreads.Self))
        {
            if (OwnThreads.OnProcessor(files.ReadText($"{OwnThreads.Self}/{thread}/schedstat")) is not { } spent)
            {
                continue;
            }

            now[thread] = spent;
            var cores = elapsed > TimeSpan.Zero ? (spent - before.GetValueOrDefault(thread)) / (elapsed.TotalSeconds * 1e9) : 0;
            if (
                elapsed > TimeSpan.Zero
                && OwnThreads.RoleOf(files, $"{OwnThreads.Self}/{thread}") is LoadKind.OwnDecode or LoadKind.OwnEffects
            )
            {
                told.Add(new LoadReading(at, LoadKind.OwnThread, int.Parse(thread, CultureInfo.InvariantCulture), (float)cores));
            }
        }

        // The busiest is reported in any case, so that a mean knows how often they were looked at.
        into.AddRange(told.Where(load => load.Value >= MinReported || load.Value >= told.Max(one => one.Value)));
        before = now;
    }
}
