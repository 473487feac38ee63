using HardyBench.Core.Playback;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Player.Native;
using static System.FormattableString;

namespace HardyBench.Player.Effects;

/// <summary>The effects that libavfilter can do on a device with the very same arithmetic as on the processor, picture brought there
/// and fetched back.</summary>
public static class DeviceFilters
{
    /// <summary>Filters by device and effect; each is a chain between upload and download.</summary>
    private static readonly Dictionary<(string Device, string Effect), DeviceFilter> Filters = new()
    {
        [("opencl", "sharpen")] = new("unsharp_opencl", TakesDeep: false, (effect, on) =>
            On(WorkingFormat.Of(on.Deep), Invariant($"unsharp_opencl=5:5:{effect["amount"]}:5:5:0"))),
        [("opencl", "key")] = new("colorkey_opencl", TakesDeep: true, (effect, _) =>
            On(
                "rgba",
                Invariant(
                    $"colorkey_opencl=color={EffectFilters.Hue(effect["hue"])}:similarity={effect["tolerance"]}:blend={effect["softness"]}"
                )
            )
        ),
        [("vulkan", "blur")] = new("gblur_vulkan", TakesDeep: true, (effect, on) =>
            On(WorkingFormat.Of(on.Deep), Invariant($"gblur_vulkan=sigma={EffectFilters.Sigma(effect, on)}"))),
    };

    /// <returns>The chain, or null where the processor has to do it.</returns>
    public static string? Of(string? device, Effect effect, EffectContext on) =>
        RefusalOf(device, effect, on.Deep) is null ? Filters[(device!, effect.Id)].Chain(effect, on) : null;

    /// <summary>Why an effect is not done on a device, or null when it is.</summary>
    /// <param name="deep">Whether pictures have more than 8 bits a sample.</param>
    public static string? RefusalOf(string? device, Effect effect, bool deep) =>
        device is null ? "no device was asked for"
        : !Filters.TryGetValue((device, effect.Id), out var found) ? $"there is no filter for it on {device}"
        : NativeMethods.HasFilter(found.Filter) == 0 ? $"these libraries were built without {found.Filter}"
        : deep && !found.TakesDeep ? $"its filter on {device} supports at most 8 bits a sample"
        : null;

    /// <summary>Whether a graph needs a device at all.</summary>
    public static bool IsUsedIn(string description) => description.Contains("hwupload", StringComparison.Ordinal);

    private static string On(string format, string filter) => $"format={format},hwupload,{filter},hwdownload,format={format}";

    private sealed record DeviceFilter(string Filter, bool TakesDeep, Func<Effect, EffectContext, string> Chain);
}
