using System.Globalization;
using HardyBench.Core.Playback;
using HardyBench.Player.Playing;

namespace HardyBench.Player.Telemetry;

/// <summary>What our own process and each kind of its threads take, in cores, from /proc/self.</summary>
public sealed class OwnThreads(SystemFiles files) : ILoadReader
{
    private readonly Dictionary<string, (LoadKind Role, long Nanoseconds)> before = [];

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        var spent = new Dictionary<LoadKind, long>
        {
            [LoadKind.OwnProcess] = 0, [LoadKind.OwnDecode] = 0, [LoadKind.OwnEffects] = 0,
            [LoadKind.OwnPresenting] = 0, [LoadKind.OwnPictures] = 0, [LoadKind.OwnTool] = 0,
        };
        var threads = files.Names("proc/self/task");
        foreach (var thread in threads)
        {
            if (OnProcessor(files, thread) is not { } now)
            {
                continue;
            }

            var known = before.TryGetValue(thread, out var last);
            var role = known ? last.Role : RoleOf(thread);
            before[thread] = (role, now);
            var delta = now - (known ? last.Nanoseconds : 0);
            spent[LoadKind.OwnProcess] += delta;
            spent[role] += delta;
        }

        foreach (var gone in before.Keys.Except(threads).ToList())
        {
            before.Remove(gone);
        }

        if (elapsed > TimeSpan.Zero && threads.Count > 0)
        {
            into.AddRange(spent.Where(part => part.Key != LoadKind.OwnPictures || part.Value > 0).Select(part =>
                new LoadReading(at, part.Key, 0, (float)(part.Value / (elapsed.TotalSeconds * 1e9)))));
        }
    }

    /// <summary>The first figure of schedstat is nanoseconds on a processor.</summary>
    internal static long? OnProcessor(SystemFiles files, string thread) =>
        files.ReadText($"proc/self/task/{thread}/schedstat") is { } text
        && long.TryParse(text.AsSpan(0, Math.Max(0, text.IndexOf(' ', StringComparison.Ordinal))), NumberStyles.None, CultureInfo.InvariantCulture, out var spent)
            ? spent
            : null;

    private LoadKind RoleOf(string thread) => files.ReadText($"proc/self/task/{thread}/comm")?.Trim() switch
    {
        ThreadRoles.Decode => LoadKind.OwnDecode,
        ThreadRoles.Effects => LoadKind.OwnEffects,
        ThreadRoles.Present => LoadKind.OwnPresenting,
        ThreadRoles.Picture => LoadKind.OwnPictures,
        _ => LoadKind.OwnTool,
    };
}

/// <summary>What each single thread of ours takes, in cores, where it is worth telling: a thread at one core is a limit that no mean
/// over cores shows.</summary>
public sealed class OwnThreadsOneByOne(SystemFiles files) : ILoadReader
{
    private const double WorthTelling = 0.02;

    private Dictionary<string, long> before = [];

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        var now = new Dictionary<string, long>();
        foreach (var thread in files.Names("proc/self/task"))
        {
            if (OwnThreads.OnProcessor(files, thread) is not { } spent)
            {
                continue;
            }

            now[thread] = spent;
            var cores = elapsed > TimeSpan.Zero ? (spent - before.GetValueOrDefault(thread)) / (elapsed.TotalSeconds * 1e9) : 0;
            if (cores >= WorthTelling)
            {
                into.Add(new LoadReading(at, LoadKind.OwnThread, (short)(int.Parse(thread, CultureInfo.InvariantCulture) % short.MaxValue), (float)cores));
            }
        }

        before = now;
    }
}
