using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Media.EffectFiles;

namespace HardyBench.Workbench.Demo;

/// <summary>The benchmark timelines of Tidewater Stagecraft, a company that films dance and theatre on tour.</summary>
public static class DemoTimelines
{
    private const string Story =
        "Tidewater Stagecraft films dance and theatre on tour with the cameras of each house, and shows a cut before the van "
        + "leaves: an HD camera in the wings (1 to 3), the dancers’ feet at 50 frames a second (4), two UHD cameras (5 to 7), the "
            + "opening title (8). "
        + "Which machine goes on tour?";

    private const string GalaStory =
        "For the closing gala the cameras of the finale are side by side in one picture: one, two, four, eight and twelve of "
        + "them as intermediates (1 to 6), four as they were filmed (7). Which part of a machine limits first, and what would a "
            + "faster one gain?";

    private static readonly Effect Grade = Effect.Of(
        "primary-grade", ("redGain", 1.08), ("greenGain", 1.0), ("blueGain", 0.92), ("gamma", 1.1), ("saturation", 1.15));

    private static readonly Effect Look = Effect.Of("lut") with { Text = Looks.WarmStage };
    private static readonly Effect Calm = Effect.Of("noise-reduction", ("spatial", 4), ("temporal", 6));

    /// <param name="raster">Of the timeline.</param>
    /// <param name="secondsEach">Length of each passage.</param>
    public static Timeline TouringNight(Raster raster, int secondsEach)
    {
        var rate = new FrameRate(25);
        var length = rate.NominalFramesPerSecond * secondsEach;
        return new Timeline("touring-night", "Touring night", raster, rate,
        [
            Ask("HD AVC, no effects", Clip("hd-avc-25")),
            Ask("HD AVC, grade, LUT, noise reduction", Clip("hd-avc-25", Grade, Look, Calm)),
            Ask("HD AVC, three layers", Clip("hd-avc-25"), Clip("hd-avc-25", Placed(0.05, 0.1)), Clip("hd-avc-25", Placed(0.55, 0.5))),
            Ask("HD AVC at 50 in a timeline at 25", Clip("hd-avc-50")),
            Ask("UHD HEVC 4:2:2, no effects", Clip("uhd-hevc-25")),
            Ask("UHD HEVC 4:2:2, grade, LUT", Clip("uhd-hevc-25", Grade, Look)),
            Ask("UHD intermediate", Clip("uhd-mezz-25")),
            new Passage(
                "Title over a dissolve",
                length,
                [Clip("hd-avc-25"), Clip("hd-mezz-25")],
                [Effect.Of("title") with { Text = "Low tide, act two" }],
                Transition.Dissolve
            ),
        ])
        {
            About = Story,
        };

        Passage Ask(string question, params Layer[] layers) => new(question, length, layers, []);
    }

    /// <summary>More of the same, step by step: what limits first differs from machine to machine.</summary>
    /// <inheritdoc cref="TouringNight"/>
    public static Timeline ClosingGala(Raster raster, int secondsEach)
    {
        var rate = new FrameRate(25);
        return new Timeline("closing-gala", "Closing gala", raster, rate,
        [
            Ask("One camera, UHD intermediate", Wall(1, "uhd-mezz-25")),
            Ask("Two cameras", Wall(2, "uhd-mezz-25")),
            Ask("Four cameras", Wall(4, "uhd-mezz-25")),
            Ask("Four cameras, graded", Wall(4, "uhd-mezz-25", Grade)),
            Ask("Eight cameras", Wall(8, "uhd-mezz-25")),
            Ask("Twelve cameras", Wall(12, "uhd-mezz-25")),
            Ask("Four cameras, UHD HEVC", Wall(4, "uhd-hevc-25")),
        ])
        {
            About = GalaStory,
        };

        Passage Ask(string question, IReadOnlyList<Layer> layers) => new(question, rate.NominalFramesPerSecond * secondsEach, layers, []);
    }

    /// <summary>Cameras in rows of four, the first behind the others over the whole picture.</summary>
    private static IReadOnlyList<Layer> Wall(int cameras, string clip, params Effect[] effects) =>
        [
            .. Enumerable
                .Range(0, cameras)
                .Select(place =>
        Clip(clip, place == 0 ? effects : [.. effects, Placed(0.02 + (0.245 * (place % 4)), 0.05 + (0.3 * (place / 4)), 0.24)]))];

    private static Effect Placed(double left, double top, double size = 0.4) =>
        Effect.Of(EffectCatalogue.Placement, ("size", size), ("left", left), ("top", top));

    private static Layer Clip(string id, params Effect[] effects) => new(id, effects);
}
