using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Player.Decoding;
using HardyBench.Player.Effects;
using HardyBench.Player.Native;
using HardyBench.Telemetry;

namespace HardyBench.Player.Playing;

/// <summary>Chooses the devices that a run works on. A run that asks for none takes those of the machine that open and that make, of one
/// frame, the picture that the processor makes; the processor does what they refuse.</summary>
/// <param name="system">Tells whether there is hardware behind a device.</param>
public sealed class OwnDevices(SystemFiles system, EffectFilters filters)
{
    /// <summary>Small pictures are compared, sample by sample.</summary>
    private const string Small = "scale=320:180:flags=bilinear,format=yuv420p";

    /// <summary>Mean difference of samples, of 255, up to which two pictures are the same: rounding, not another picture. Our own
    /// choice.</summary>
    private const double SamePicture = 2;

    private readonly Lazy<IReadOnlyList<string>> own =
        new(() => [.. Devices.On(system).Where(device => device.IsOwn).Select(device => device.Name)]);

    /// <summary>Chooses where a clip is decoded.</summary>
    /// <param name="asked">As in <see cref="PlaybackSettings.DecodeOn"/>.</param>
    /// <returns>The device, null for the processor; and why a device that could have been expected to do it does not.</returns>
    /// <exception cref="MediaException">The clip cannot be decoded at all.</exception>
    public (string? Device, string? Refusal) DecoderFor(ClipSource source, bool isAllIntra, string? asked)
    {
        if (asked == WorkPlace.Processor || (asked is null && own.Value.Count == 0))
        {
            return (null, null);
        }

        var refusals = new List<string>();
        foreach (var device in asked is null ? own.Value : [asked])
        {
            if (RefusalOf(source, device) is not { } refusal)
            {
                return (device, null);
            }

            refusals.Add(asked is null ? $"{device}: {refusal}" : refusal);
        }

        // Intermediates are decoded on the processor everywhere, which is what they are for.
        return (null, asked is null && isAllIntra ? null : string.Join("; ", refusals));
    }

    /// <summary>Chooses what effects run on: of the machine's own devices the one that does most of the timeline's effects.</summary>
    /// <returns>The device, null for the processor; and why it cannot be used at all.</returns>
    public (string? Device, string? Refusal) ForEffects(PlaybackPlan plan, IClipFiles files)
    {
        switch (plan.Settings.EffectsOn)
        {
            case WorkPlace.Processor:
                return (null, null);
            case { } asked:
                return (asked, Devices.RefusalOf(asked));
        }

        var effects = plan.Timeline.Passages.SelectMany((_, index) => EffectsOf(plan, index)).ToList();
        var byDevice = own.Value
            .Select(device => (
                Device: device,
                Does: effects.Where(one => DeviceFilters.RefusalOf(device, one.Effect, one.Deep) is null)
                    .DistinctBy(one => one.Effect.Id).ToList()))
            .Where(one => one.Does.Count > 0)
            .OrderByDescending(one => one.Does.Count);
        (string?, string?) refused = (null, null);
        foreach (var (device, does) in byDevice)
        {
            var refusals = does.Select(one => EffectRefusal(plan.Clips[one.ClipId], files, device, one));
            if (refusals.FirstOrDefault(no => no is not null) is not { } refusal)
            {
                return (device, null);
            }

            refused = refused.Item1 is null ? (device, refusal) : refused;
        }

        return refused;
    }

    private static IEnumerable<EffectAt> EffectsOf(PlaybackPlan plan, int index)
    {
        var passage = plan.Played(index);
        return passage.AllEffects().Select(effect => new EffectAt(effect, plan.IsDeep(passage), passage.Layers[0].ClipId));
    }

    /// <summary>Why a device does not decode a clip as it should; null when it does. The first frame tells: only then does a device see
    /// what it is asked to decode.</summary>
    private static string? RefusalOf(ClipSource source, string device)
    {
        using var there = new ClipDecoder(source, 1, device);
        if (there.Refusal is { } refusal)
        {
            return refusal;
        }

        using var frame = there.Next();
        if (there.Refusal is { } late)
        {
            return late;
        }

        using var here = new ClipDecoder(source, 1);
        using var same = here.Next();
        return IsSame(PictureOf(frame, Small, null), PictureOf(same, Small, null))
            ? null
            : "its picture of the first frame differs from the processor's";
    }

    /// <summary>Why a device does not treat a frame as it should; null when it does.</summary>
    private string? EffectRefusal(Clip clip, IClipFiles files, string device, EffectAt one)
    {
        try
        {
            using var decoder = new ClipDecoder(ClipSource.Of(clip, files), 1);
            using var frame = decoder.Next();
            var (effect, on) = (one.Effect, new EffectContext(decoder.Raster, 1, one.Deep, 0));
            return IsSame(
                PictureOf(frame, $"{DeviceFilters.Of(device, effect, on)},{Small}", device),
                PictureOf(frame, $"{filters.Of(effect, on)},{Small}", null))
                ? null
                : $"its {effect.Label} differs from the processor's";
        }
        catch (MediaException failure)
        {
            return failure.Message;
        }
    }

    private static byte[] PictureOf(DecodedFrame frame, string chain, string? device)
    {
        using var treatment = new Treatment($"[in0]{chain}[out]", [frame.Picture], new FrameRate(25), 1, device);
        using var picture = treatment.Treat([frame], 0) ?? throw new MediaException("the check gave no picture.");
        return picture.CopyPlanes();
    }

    /// <summary>Whether two pictures differ by no more than rounding.</summary>
    public static bool IsSame(byte[] one, byte[] other) =>
        one.Length == other.Length && one.Zip(other, (a, b) => Math.Abs(a - b)).Average() <= SamePicture;

    /// <summary>An effect, whether it works on more than 8 bits, and a clip to try it on.</summary>
    private sealed record EffectAt(Effect Effect, bool Deep, string ClipId);
}
