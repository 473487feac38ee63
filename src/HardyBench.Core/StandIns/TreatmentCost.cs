using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.StandIns;

/// <summary>One piece of the work that treating a frame is.</summary>
/// <param name="Pixels">Of the picture that it works on.</param>
/// <param name="Deep">Whether with more than 8 bits a sample.</param>
public readonly record struct TreatmentPiece(EffectCost Cost, EffectPlace RunsOn, double Pixels, bool Deep)
{
    /// <summary>The effect's id; null for what comes with no effect.</summary>
    public string? Effect { get; init; }

    /// <summary>Seconds on one reference core.</summary>
    public double CoreSeconds => (Deep ? Cost.DeepNanoseconds : Cost.Nanoseconds) is { } fitted
        ? fitted * 1e-9 * Pixels
        : Cost.Seconds(Pixels, ReferenceCore.FlopPerSecond, ReferenceCore.BytesPerSecond);
}

/// <summary>What treating a frame of a passage asks, wherever it is done: for the weight that pages show and for stand-ins alike.</summary>
public static class TreatmentCost
{
    /// <param name="passage">As it is played, without effects that are off.</param>
    /// <param name="formats">Of its layers' clips; null for one that is not known, which costs its effects alone.</param>
    /// <param name="raster">That effects work at.</param>
    /// <param name="deep">Whether with more than 8 bits a sample.</param>
    /// <param name="clipDivisor">Where a layer's effects work at its clip's raster: what that is divided by on each axis. Null where they
    /// work at the timeline's.</param>
    /// <param name="inColour">Whether pictures are put together in red, green and blue: then every layer goes over there, and none comes
    /// back.</param>
    public static IReadOnlyList<TreatmentPiece> Of(
        Passage passage,
        IReadOnlyList<ClipFormat?> formats,
        Raster raster,
        bool deep,
        int? clipDivisor = null,
        bool inColour = false
    )
    {
        var pieces = new List<TreatmentPiece>();
        foreach (var (index, layer) in passage.Layers.Index())
        {
            // Also of a passage that cannot be played as it is written.
            var size = layer.Effects.FirstOrDefault(effect => effect.Id == EffectCatalogue.Placement)?["size"]
                is >= 0
                    and <= 1
                    and var placed
                ? placed
                : 1;
            var pixels = raster.Pixels * size * size;
            if (formats[index] is { } format && (format.Raster != raster || size < 1))
            {
                Add(EffectCost.Scaling, Math.Max(pixels, format.Raster.Pixels));
            }

            if (inColour)
            {
                Add(EffectCost.ToColour, pixels);
            }

            Chain(layer.Effects, clipDivisor is { } divisor && formats[index] is { } own ? own.Raster.DividedBy(divisor).Pixels : pixels);
            if (index > 0)
            {
                Add(EffectCost.Blend, pixels);
            }

            if (layer.IsTranslucent)
            {
                Add(EffectCost.Blend, pixels);
            }

            if (layer.Retime is { Method: not RetimeMethod.Repeat } retime && formats[index] is { } source)
            {
                Add(retime.Method == RetimeMethod.Blend ? EffectCost.Blend : EffectCost.OpticalFlow, source.Raster.Pixels);
            }
        }

        Chain(passage.Over, raster.Pixels);
        return pieces;

        // Effects that work on red, green and blue share one way there and back when they follow each other.
        void Chain(IReadOnlyList<Effect> effects, double pixels)
        {
            var isInColour = inColour;
            foreach (var kind in effects.Select(effect => EffectCatalogue.Find(effect.Id)).OfType<EffectKind>())
            {
                if (kind.InColour && !isInColour)
                {
                    Add(EffectCost.ToColourAndBack, pixels);
                }

                isInColour = kind.InColour || inColour;
                Add(kind.Cost, pixels, kind.RunsOn, kind.Id);
            }
        }

        void Add(EffectCost cost, double pixels, EffectPlace place = EffectPlace.ProcessorOrGraphics, string? effect = null) =>
            pieces.Add(new TreatmentPiece(cost, place, pixels, deep) { Effect = effect });
    }
}
