using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Player.Decoding;
using HardyBench.Player.Native;
using HardyBench.Telemetry;

namespace HardyBench.Player.Playing;

/// <summary>Sees to the footage of a plan before it is played: brings it into the cache or out of it where asked, and finds out
/// where it lies and on what it is decoded in fact.</summary>
public sealed class FootageConditions(SystemFiles system, IClipFiles files, OwnDevices devices)
{
    /// <summary>By clip id; clips whose file is missing have no entry and fail when they are played.</summary>
    public IReadOnlyDictionary<string, FootageState> Prepare(PlaybackPlan plan)
    {
        var drives = new MountedDrives(system);
        var states = new Dictionary<string, FootageState>();
        foreach (var clip in plan.PlayedClipIds.Select(id => plan.Clips[id]))
        {
            try
            {
                states[clip.Id] = StateOf(clip, plan.Settings, drives);
            }
            catch (MediaException)
            {
                // Playing it fails too, and says so where it belongs: at its passage.
            }
        }

        return states;
    }

    private FootageState StateOf(Clip clip, PlaybackSettings settings, MountedDrives drives)
    {
        var source = ClipSource.Of(clip, files);
        var path = source.Path;
        var (device, refusal) = devices.DecoderFor(source, clip.Format.IsAllIntra, settings.DecodeOn);
        if (settings.Cache != FileCache.AsFound)
        {
            Outcome.Check(NativeMethods.Cache(path, settings.Cache == FileCache.Warm ? 1 : 0), $"preparing {Path.GetFileName(path)}");
        }

        var (drive, kind) = drives.Of(path);
        return new FootageState(
            drive, kind, FileCaching.ShareOf(path), device ?? WorkPlace.Processor, refusal,
            new FileInfo(path) is { Exists: true } file ? file.Length : null, KeySeconds: clip.Format.KeySeconds);
    }
}

/// <summary>The system's file cache.</summary>
public static class FileCaching
{
    private const double Millionths = 1e-6;

    /// <summary>Share of a file that lies in the cache, 0 to 1, or null where it is unknown.</summary>
    public static double? ShareOf(string path) => NativeMethods.Cached(path) is >= 0 and var share ? share * Millionths : null;
}
