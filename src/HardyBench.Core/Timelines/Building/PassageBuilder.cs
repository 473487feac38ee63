using HardyBench.Core.Footage;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.Timelines.Building;

/// <summary>What kind of series is to be written.</summary>
public enum SeriesKind
{
    /// <summary>One more layer of the first clip a passage.</summary>
    LayerRamp,

    /// <summary>One more effect of the list a passage, on the first clip.</summary>
    EffectRamp,

    /// <summary>Each clip bare: one family in every encoding, rate or raster.</summary>
    Ladder,

    /// <summary>Each clip without the effects, then with them.</summary>
    WithAndWithout,

    /// <summary>One more of the clips side by side a passage.</summary>
    StreamCount,
}

/// <summary>A series to be written.</summary>
/// <param name="ClipIds">In order; at least one.</param>
/// <param name="Count">Steps of a ramp or stream count; the others go by their lists.</param>
/// <param name="Seconds">Length of each passage.</param>
public sealed record Series(SeriesKind Kind, IReadOnlyList<string> ClipIds, IReadOnlyList<Effect> Effects, int Count, double Seconds);

/// <summary>A series cannot be built; the message says what is missing.</summary>
public sealed class SeriesException(string message) : Exception(message);

/// <summary>Writes series of passages, each of which asks one question. They are ordinary passages afterwards.</summary>
public static class PassageBuilder
{
    private const int MaxSteps = 64;

    /// <exception cref="SeriesException">There is nothing to build from; the message says what is missing.</exception>
    public static IReadOnlyList<Passage> Build(Series series, FrameRate rate, IReadOnlyDictionary<string, Clip> clips)
    {
        if (series.ClipIds.Count == 0)
        {
            throw new SeriesException("Choose at least one clip.");
        }

        if (series.Kind is SeriesKind.EffectRamp or SeriesKind.WithAndWithout && series.Effects.Count == 0)
        {
            throw new SeriesException("Choose at least one effect.");
        }

        var frames = Math.Max(1, (int)Math.Round(Math.Clamp(series.Seconds, 0.04, 3600) * rate.FramesPerSecond));
        var steps = Enumerable.Range(1, Math.Clamp(series.Count, 1, MaxSteps));
        var first = series.ClipIds[0];
        return series.Kind switch
        {
            SeriesKind.LayerRamp =>
            [
                .. steps.Select(n => Ask(n == 1 ? "one layer" : $"{n} layers", Tiles([.. Enumerable.Repeat(first, n)], n))),
            ],
            SeriesKind.StreamCount => [.. steps.Select(n => Ask(
                n == 1 ? "one stream" : $"{n} streams",
                Tiles([.. Enumerable.Range(0, n).Select(i => series.ClipIds[i % series.ClipIds.Count])], n)
            )
            ),
    ],
            SeriesKind.EffectRamp => [.. Enumerable.Range(0, series.Effects.Count + 1).Select(n => Ask(
                n == 0 ? "bare" : $"with {string.Join(", ", series.Effects.Take(n).Select(effect => effect.Label))}",
                [new Layer(first, [.. series.Effects.Take(n)])]
            )
            ),
],
            SeriesKind.Ladder => [.. series.ClipIds.Select(id => Ask(NameOf(id), [new Layer(id, [])]))],
            _ =>
            [
                .. series.ClipIds.SelectMany(id => new[]
                {
                    Ask($"{NameOf(id)}, without", [new Layer(id, [])]),
                    Ask(
                        $"{NameOf(id)}, with {string.Join(", ", series.Effects.Select(effect => effect.Label))}",
                        [new Layer(id, series.Effects)]
                    ),
                }),
            ],
        };

        Passage Ask(string question, IReadOnlyList<Layer> layers) => new(question, frames, layers, []);

        string NameOf(string id) => clips.TryGetValue(id, out var clip) ? $"{clip.Format.Encoding}, {clip.Format.RasterAndRate}" : id;
    }

    /// <summary>The first layer fills the raster when it is alone; several stand side by side in a square.</summary>
    internal static IReadOnlyList<Layer> Tiles(IReadOnlyList<string> ids, int count)
    {
        if (count == 1)
        {
            return [new Layer(ids[0], [])];
        }

        var side = (int)Math.Ceiling(Math.Sqrt(count));
        var size = Math.Round(1.0 / side, 4);
        return [.. ids.Select((id, i) => new Layer(id, [Effect.Of(
            EffectCatalogue.Placement,
            ("size", size),
            ("left", Math.Round((double)(i % side) / side, 4)),
            ("top", Math.Round((double)(i / side) / side, 4))
        ),
    ]
        )
            ),
        ];
    }
}
