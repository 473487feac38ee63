namespace HardyBench.Core.Timelines.Effects;

/// <summary>Every kind of effect there is. A new one is a row here and a filter in the player.</summary>
public static class EffectCatalogue
{
    public static IReadOnlyList<EffectKind> All { get; } =
    [
        new("primary-grade", "grade", EffectGroup.Colour, "Gain for each colour, gamma and saturation.", new(60, 24, 0, 6.6, 5.8),
        [
            Times("redGain", "red", 4), Times("greenGain", "green", 4), Times("blueGain", "blue", 4),
            new("gamma", "gamma", "", 0.2, 5, 1), Times("saturation", "saturation", 3),
        ], InColour: true),
        new("curves", "curves", EffectGroup.Colour, "Raises or lowers shadows, midtones and highlights.", new(50, 24, 0, 2.9, 2.4),
        [
            new("shadows", "shadows", "", -0.2, 0.2, 0),
            new("middle", "middle", "", -0.2, 0.2, 0),
            new("highlights", "highlights", "", -0.2, 0.2, 0),
        ], InColour: true),
        new(
            "lut",
            "LUT",
            EffectGroup.Colour,
            "A three-dimensional look-up table.",
            new(90, 40, 0, 27, 27),
            [],
            TextLabel: "look",
            InColour: true
        ),
        new(
            "noise-reduction",
            "noise reduction",
            EffectGroup.Detail,
            "Smooths noise within a frame and from frame to frame.",
            new(2600, 260, 1, 4.7, 6.3),
            [new("spatial", "within a frame", "code values", 0, 40, 4), new("temporal", "between frames", "code values", 0, 40, 6)],
            EffectPlace.ProcessorOrGraphics, FramesBefore: 1),
        new(
            "sharpen",
            "sharpen",
            EffectGroup.Detail,
            "Emphasises fine detail.",
            new(110, 32, 0, 9.6, 11.8),
            [new("amount", "amount", "×", 0, 3, 1)]
        ),
        new("blur", "blur", EffectGroup.Detail, "A Gaussian blur.", new(130, 48, 0, 5.0, 5.8), [new("radius", "radius", "px", 0, 100, 8)]),
        new("glow", "glow", EffectGroup.Detail, "Bright parts bleed light into their surroundings.", new(170, 80, 0, 20.8, 18.2),
            [new("radius", "radius", "px", 0, 100, 20), new("amount", "amount", "", 0, 1, 0.4)], InColour: true),
        new("film-grain", "grain", EffectGroup.Detail, "Moving film grain.", new(40, 24, 0, 0.37, 4.8),
            [new("strength", "strength", "code values", 0, 100, 12)], EightBit: true),
        new("stabilise", "stabilise", EffectGroup.Motion, "Steadies a hand-held shot.", new(900, 96, 1, 35, 39),
            [new("reach", "reach", "px", 0, 64, 32)], EffectPlace.OneCore, FramesBefore: 1, EightBit: true),
        new("motion-blur", "motion blur", EffectGroup.Motion, "Blurs movement over several frames.", new(60, 120, 5, 8.6, 13.3),
            [new("frames", "frames", "frames", 2, 16, 5)], FramesBefore: 4),
        new(
            "frame-blend",
            "frame blend",
            EffectGroup.Motion,
            "Each frame blended with the one before.",
            new(16, 40, 1, 5.6, 8.1),
            [],
            FramesBefore: 1
        ),
        new("key", "key", EffectGroup.Geometry, "Makes one colour transparent.", new(50, 32, 0, 15, 16.5),
            [
                new("hue", "hue", "°", 0, 360, 120),
                new("tolerance", "tolerance", "", 0.01, 1, 0.2),
                new("softness", "softness", "", 0, 1, 0.1),
            ],
            EightBit: true
        ),
        new(
            "transform",
            "transform",
            EffectGroup.Geometry,
            "Rotates, scales and moves the picture within its raster.",
            new(70, 32, 0, 3.8, 6.9),
            [
                new("turn", "turn", "°", -180, 180, 0),
                new("size", "size", "×", 1, 4, 1.2),
                new("across", "across", "", -1, 1, 0),
                new("down", "down", "", -1, 1, 0),
            ]
        ),
        new(Placement, "picture in picture", EffectGroup.Geometry, "The layer smaller, at a place in the raster.", new(0, 0, 0, 0, 0),
            [new("size", "size", "", 0.02, 1, 0.4), new("left", "left", "", 0, 1, 0.05), new("top", "top", "", 0, 1, 0.05)]),
        new("corner-pin", "corner pin", EffectGroup.Geometry, "Fits the picture between four corners.", new(90, 40, 0, 9.9, 14.6),
        [
            Corner("topLeftX", 0.1), Corner("topLeftY", 0.1), Corner("topRightX", 0.9), Corner("topRightY", 0.05),
            Corner("bottomLeftX", 0.05), Corner("bottomLeftY", 0.9), Corner("bottomRightX", 0.95), Corner("bottomRightY", 0.95),
        ], EightBit: true),
        new("lens-correction", "lens correction", EffectGroup.Geometry, "Corrects the distortion of a wide lens.", new(80, 40, 0, 5.4, 6.4),
            [new("first", "first term", "", -1, 1, -0.1), new("second", "second term", "", -1, 1, 0)]),
        new("title", "title", EffectGroup.Words, "Text over the picture.", new(16, 24, 0, 0.45, 1.0),
            [new("height", "height", "", 0.02, 0.5, 0.083)], EffectPlace.ProcessorOrGraphics, TextLabel: "words"),
        new("moving-title", "moving title", EffectGroup.Words, "Text that moves across the picture.", new(22, 24, 0, 0.4, 0.95),
            [new("height", "height", "", 0.02, 0.5, 0.083), new("pace", "pace", "px/s", 10, 2000, 240)], TextLabel: "words"),
        new("particles", "3D particles", EffectGroup.StandInsOnly, "A cloud of lit particles in space.", new(6000, 120),
            [new("count", "count", "thousands", 1, 1000, 50)], EffectPlace.StandInsOnly),
        new("learned-style", "learned style", EffectGroup.StandInsOnly, "A neural network redraws the picture.", new(150_000, 2000, 1),
            [], EffectPlace.StandInsOnly),
    ];

    /// <summary>The effect that places a layer rather than treating it.</summary>
    public const string Placement = "picture-in-picture";

    private static readonly Dictionary<string, EffectKind> ById = All.ToDictionary(kind => kind.Id);

    /// <summary>The kind of that id, or null.</summary>
    public static EffectKind? Find(string id) => ById.GetValueOrDefault(id);

    /// <summary>What people call it; the id itself when it is not known.</summary>
    public static string LabelOf(string id) => Find(id)?.Label ?? id;

    /// <summary>What is wrong with an effect's id, settings and text: phrases, none when all is well.</summary>
    public static IEnumerable<string> Problems(Effect effect)
    {
        if (Find(effect.Id) is not { } kind)
        {
            yield return $"the effect '{effect.Id}' is not known";
            yield break;
        }

        foreach (var (name, value) in effect.Settings)
        {
            var setting = kind.Settings.FirstOrDefault(setting => setting.Name == name);
            if (setting is null)
            {
                yield return $"'{kind.Label}' has no setting '{name}'";
            }
            else if (!(value >= setting.Min && value <= setting.Max))
            {
                yield return FormattableString.Invariant(
                    $"'{kind.Label}': {setting.Label} is {value}; allowed: {setting.Min} to {setting.Max}"
                );
            }
        }

        if (kind.TextLabel is { } text && string.IsNullOrWhiteSpace(effect.Text))
        {
            yield return $"'{kind.Label}' has no {text}";
        }
    }

    private static EffectSetting Times(string name, string label, double max) => new(name, label, "×", 0, max, 1);

    private static EffectSetting Corner(string name, double value) =>
        new(
            name,
            string.Concat(name.Select(letter => char.IsUpper(letter) ? $" {char.ToLowerInvariant(letter)}" : $"{letter}")),
            "",
            -0.5,
            1.5,
            value
        );
}
