using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.StandIns;

/// <summary>One piece of the work that treating a frame is.</summary>
/// <param name="Pixels">Of the picture that it works on.</param>
/// <param name="Deep">Whether with more than 8 bits a sample.</param>
public readonly record struct TreatmentPiece(EffectCost Cost, EffectPlace RunsOn, double Pixels, bool Deep)
{
    /// <summary>The effect's id, or the name of what comes with no effect.</summary>
    public required string Work { get; init; }

    /// <summary>Seconds on one reference core.</summary>
    public double CoreSeconds => (Deep ? Cost.DeepNanoseconds : Cost.Nanoseconds) is { } fitted
        ? fitted * 1e-9 * Pixels
        : Cost.Seconds(Pixels, ReferenceCore.FlopPerSecond, ReferenceCore.BytesPerSecond);
}

/// <summary>What treating a frame of a passage asks, wherever it is done: for the weight that pages show and for stand-ins alike.</summary>
public static class TreatmentCost
{
    /// <summary>Names of work that comes with no effect.</summary>
    public const string Scaling = "scaling", Blend = "blend", ToColourAndBack = "colour-and-back", ToColour = "colour", Between = "between";

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
                Add(EffectCost.Scaling, Scaling, Math.Max(pixels, format.Raster.Pixels));
            }

            if (inColour)
            {
                Add(EffectCost.ToColour, ToColour, pixels);
            }

            Chain(layer.Effects, clipDivisor is { } divisor && formats[index] is { } own ? own.Raster.DividedBy(divisor).Pixels : pixels);
            if (index > 0)
            {
                Add(EffectCost.Blend, Blend, pixels);
            }

            if (layer.IsTranslucent)
            {
                Add(EffectCost.Blend, Blend, pixels);
            }

            if (layer.Retime is { Method: not RetimeMethod.Repeat } retime && formats[index] is { } source)
            {
                var (cost, work) = retime.Method == RetimeMethod.Blend ? (EffectCost.Blend, Blend) : (EffectCost.OpticalFlow, Between);
                Add(cost, work, source.Raster.Pixels);
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
                    Add(EffectCost.ToColourAndBack, ToColourAndBack, pixels);
                }

                isInColour = kind.InColour || inColour;
                Add(kind.Cost, kind.Id, pixels, kind.RunsOn);
            }
        }

        void Add(EffectCost cost, string work, double pixels, EffectPlace place = EffectPlace.ProcessorOrGraphics) =>
            pieces.Add(new TreatmentPiece(cost, place, pixels, deep) { Work = work });
    }
}
