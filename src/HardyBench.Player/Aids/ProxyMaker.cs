using FFMpegCore;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;

namespace HardyBench.Player.Aids;

/// <summary>Makes proxies: the same frames in a smaller raster, all-intra (RDD 36), 4:2:2 with 10 bits.</summary>
public sealed class ProxyMaker(AidFolder folder)
{
    /// <summary>The key of a clip's proxy: an edited clip has another.</summary>
    public static string KeyOf(Clip clip, Proxies size) =>
        $"proxy-{(clip.Sha256 is { } digest ? digest[..16] : clip.Id)}-{size.ToString().ToLowerInvariant()}";

    /// <summary>Makes the proxy of a clip if there is none.</summary>
    /// <param name="file">The clip's file.</param>
    /// <exception cref="Clips.MakingException">It could not be made; nothing half-made is left.</exception>
    public Task<AidNote> MakeAsync(Clip clip, string file, Proxies size, CancellationToken stop)
    {
        var (key, divisor) = (KeyOf(clip, size), size == Proxies.Half ? 2 : 4);
        var raster = clip.Format.Raster.DividedBy(divisor);
        return AidMaking.MakeAsync(folder, key, $"a proxy of {clip.Title}", clip.Id, part => FFMpegArguments
            .FromFileInput(file)
            .OutputToFile(part, overwrite: true, options => options.WithCustomArgument(
                $"-an -vf scale={raster.Width}:{raster.Height}:flags=bilinear {AidMaking.Encoder}")), stop);
    }
}
