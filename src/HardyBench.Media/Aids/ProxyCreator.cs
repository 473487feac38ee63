using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Media.Commands;

namespace HardyBench.Media.Aids;

/// <summary>Makes proxies: the same frames in a smaller raster, all-intra (RDD 36), 4:2:2 with 10 bits.</summary>
public sealed class ProxyCreator(AidFolder folder)
{
    /// <summary>The key of a clip's proxy: an edited clip has another.</summary>
    public static string KeyOf(Clip clip, Proxies size) =>
        $"proxy-{(clip.Sha256 is { } digest ? digest[..16] : clip.Id)}-{size.ToString().ToLowerInvariant()}";

    /// <summary>Makes the proxy of a clip if there is none.</summary>
    /// <param name="file">The clip's file.</param>
    /// <exception cref="Clips.CreationException">It could not be made; nothing half-made is left.</exception>
    public Task<AidNote> MakeAsync(Clip clip, string file, Proxies size, CancellationToken stop)
    {
        var (key, divisor) = (KeyOf(clip, size), size == Proxies.Half ? 2 : 4);
        var raster = clip.Format.Raster.DividedBy(divisor);
        var rate = clip.Format.Rate;
        // Every slot of the clip gets a picture, so that frame numbers stay the same where the clip's time stamps are uneven.
        var filters =
            $"setpts=PTS-STARTPTS,fps={rate.Numerator}/{rate.Denominator}:round=near,tpad=stop=-1:stop_mode=clone,scale={raster.Width}:{raster.Height}:flags=bilinear";
        return AidMaking.MakeAsync(folder, key, $"a proxy of {clip.Title}", clip.Id, null, part => MediaCommand.FromFile(
            file,
            [
                "-map",
                clip.Track is { } track ? $"0:{track.Index}" : "0:v:0",
                "-vf",
                filters,
                "-frames:v",
                $"{clip.FrameCount}",
                "-fps_mode",
                "passthrough",
                .. AidMaking.Encoder,
            ],
            part), stop);
    }
}
