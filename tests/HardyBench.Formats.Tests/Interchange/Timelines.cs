using CsCheck;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Formats.Tests.Interchange;

/// <summary>Random timelines over three clips.</summary>
internal static class Timelines
{
    private static readonly FrameRate[] Rates = [new(24), new(25), new(24000, 1001), new(30000, 1001), new(50), new(60000, 1001)];

    public static IReadOnlyDictionary<string, Clip> Clips { get; } = new[]
    {
        Clip("a", new FrameRate(24), Codec.Avc, "SHA-A"),
        Clip("b", new FrameRate(24), Codec.Hevc, "SHA-B"),
        Clip("logo", new FrameRate(24), Codec.Png, "SHA-LOGO"),
    }.ToDictionary(clip => clip.Id);

    private static readonly Gen<Effect> Effects = Gen.Select(
        Gen.Int[0, EffectCatalogue.All.Count - 1],
        Gen.Int[0, 100],
        Gen.Int[0, 5],
        (which, share, off) =>
    {
        var kind = EffectCatalogue.All[which];
        return new Effect(
            kind.Id,
            kind.Settings.ToDictionary(
                setting => setting.Name,
                setting => Math.Round(setting.Min + (setting.Max - setting.Min) * share / 100, 3)
            ),
            kind.TextLabel is null ? null : "Words: \"five\" & {six}") { IsOff = off == 0 };
    });

    private static readonly Gen<Layer> Layers = Gen.Select(
        OneOf("a", "b", "logo"),
        Effects.List[0, 2],
        Gen.Int[0, 400],
        OneOf<Retime?>(null, new(0.5), new(0), new(2, RetimeMethod.Blend), new(0.2, RetimeMethod.OpticalFlow)),
        OneOf<string?>(null, """{"elsewhere":{"note":"kept"}}"""),
        OneOf<double?>(null, null, 0.4),
        (clip, effects, start, retime, metadata, opacity) => new Layer(clip, effects, start, retime, metadata) { Opacity = opacity });

    private static readonly Gen<Passage> Passages = Gen.Select(
        Gen.Int[1, 1000],
        Gen.Int[2, 300],
        Layers.List[1, 3],
        Effects.List[0, 2],
        OneOf<Transition?>(null, Transition.Dissolve, Transition.Wipe, Transition.Dip),
        (name, length, layers, over, transition) =>
            new Passage($"asks {name}", length, layers, [.. over.Distinct()], layers.Count == 2 ? transition : null)
    );

    /// <summary>Everything that a timeline can hold.</summary>
    public static Gen<Timeline> Any { get; } = Gen.Select(
        OneOf(Rates), Passages.List[1, 6], OneOf<int?>(null, 8, 10), Gen.Bool, OneOf<string?>(null, """{"elsewhere":[1,{"deep":true}]}"""),
        (rate, passages, depth, marked, metadata) => new Timeline(
            "t",
            "Low tide",
            new Raster(1920, 1080),
            rate,
            passages,
            depth,
            marked ? [new TimelineMark(1, "first")] : null,
            metadata
        )
        {
            About = marked ? "What it is for" : null,
        }
    );

    private static Gen<T> OneOf<T>(params T[] values) => Gen.Int[0, values.Length - 1].Select(which => values[which]);

    private static Clip Clip(string id, FrameRate rate, Codec codec, string sha) => new(
        id, $"{id} title", new ClipFormat(codec, ChromaSubsampling.Quarter, 8, Raster.Hd, rate, 12, DataRate.FromMegabits(10)), 500, sha);
}
