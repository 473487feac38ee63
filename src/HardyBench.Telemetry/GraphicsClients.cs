using System.Globalization;
using HardyBench.Core.Playback;

namespace HardyBench.Telemetry;

/// <summary>What this process itself asks of graphics units, from the client statistics that drivers write into /proc/self/fdinfo
/// (the kernel's Documentation/gpu/drm-usage-stats.rst): nanoseconds of each engine by client. Read after the others, and left out where
/// one of them tells of the whole unit.</summary>
public sealed class GraphicsClients(SystemFiles files) : ILoadReader
{
    private const string Engine = "drm-engine-", Client = "drm-client-id";

    /// <summary>How drivers call the engines that decode and encode.</summary>
    private static readonly string[] MediaEngines = ["video", "dec", "enc", "vcn", "jpeg"];

    private readonly bool isThere = files.Names("sys/class/drm").Count > 0;
    private Dictionary<(string Client, string Engine), long> before = [];

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        if (!isThere)
        {
            return;
        }

        var now = new Dictionary<(string Client, string Engine), long>();
        foreach (var descriptor in files.Names("proc/self/fdinfo"))
        {
            AddClient(files.ReadText($"proc/self/fdinfo/{descriptor}"), now);
        }

        var spent = now.Where(engine => before.ContainsKey(engine.Key)).ToLookup(
            engine => KindOf(engine.Key.Engine), engine => Math.Max(0, engine.Value - before[engine.Key]));
        if (elapsed > TimeSpan.Zero)
        {
            into.AddRange(spent.Where(kind => !into.Exists(load => load.Kind == kind.Key)).Select(kind => new LoadReading(
                at, kind.Key, 0, (float)Math.Min(1, kind.Sum() / (elapsed.TotalSeconds * 1e9)))).ToList());
        }

        before = now;
    }

    /// <summary>A client open under several descriptors writes the same figures under each, and counts once.</summary>
    private static void AddClient(string? text, Dictionary<(string Client, string Engine), long> into)
    {
        if (text is null || !text.Contains(Engine, StringComparison.Ordinal))
        {
            return;
        }

        var fields = text.Split('\n').Select(line => line.Split(':', 2)).Where(parts => parts.Length == 2)
            .DistinctBy(parts => parts[0]).ToDictionary(parts => parts[0], parts => parts[1].Trim());
        foreach (var (name, value) in fields.Where(field => field.Key.StartsWith(Engine, StringComparison.Ordinal)))
        {
            if (
                value.EndsWith(" ns", StringComparison.Ordinal)
                && long.TryParse(value[..^3], NumberStyles.None, CultureInfo.InvariantCulture, out var spent)
            )
            {
                var key = (fields.GetValueOrDefault(Client, string.Empty), name[Engine.Length..]);
                into[key] = Math.Max(spent, into.GetValueOrDefault(key));
            }
        }
    }

    private static LoadKind KindOf(string engine) =>
        MediaEngines.Any(media => engine.Contains(media, StringComparison.Ordinal)) ? LoadKind.MediaEngineBusy : LoadKind.GraphicsBusy;
}
