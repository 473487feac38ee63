using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Media.EffectFiles;

namespace HardyBench.Workbench.Demo;

/// <summary>The benchmark timeline of Tidewater Stagecraft, a company that films dance and theatre on tour.</summary>
public static class DemoTimelines
{
    private const string Story = "Tidewater Stagecraft films dance and theatre on tour with the cameras of each house, and shows a cut before the van "
        + "leaves: an HD camera in the wings (1 to 3), the dancers’ feet at 50 frames a second (4), two UHD cameras (5 to 7), the opening title (8). "
        + "Which machine goes on tour?";

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
            Ask("HD AVC, bare", Clip("hd-avc-25")),
            Ask("the same, graded and calmed", Clip("hd-avc-25", Grade, Look, Calm)),
            Ask("three layers of it", Clip("hd-avc-25"), Clip("hd-avc-25", Placed(0.05, 0.1)), Clip("hd-avc-25", Placed(0.55, 0.5))),
            Ask("50 frames in a 25-frame timeline", Clip("hd-avc-50")),
            Ask("UHD HEVC 4:2:2, bare", Clip("uhd-hevc-25")),
            Ask("the same, graded", Clip("uhd-hevc-25", Grade, Look)),
            Ask("UHD intermediate", Clip("uhd-mezz-25")),
            new Passage("a title over a dissolve", length, [Clip("hd-avc-25"), Clip("hd-mezz-25")], [Effect.Of("title") with { Text = "Low tide, act two" }], Transition.Dissolve),
        ])
        {
            About = Story,
        };

        Passage Ask(string question, params Layer[] layers) => new(question, length, layers, []);
    }

    private static Effect Placed(double left, double top) =>
        Effect.Of(EffectCatalogue.Placement, ("size", 0.4), ("left", left), ("top", top));

    private static Layer Clip(string id, params Effect[] effects) => new(id, effects);
}
