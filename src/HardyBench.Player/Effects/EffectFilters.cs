using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines.Effects;
using static System.FormattableString;

namespace HardyBench.Player.Effects;

/// <summary>What an effect works on.</summary>
/// <param name="Raster">The picture's raster at this point.</param>
/// <param name="Scale">Processed size against full size, so that lengths in pixels shrink with the preview scale.</param>
/// <param name="Deep">Whether more than 8 bits a sample are kept.</param>
/// <param name="Number">Different for every effect of a graph, for names of inner pads.</param>
public readonly record struct EffectContext(Raster Raster, double Scale, bool Deep, int Number);

/// <summary>Each effect as a chain of libavfilter's filters.</summary>
/// <param name="looks">Where the look-up tables lie.</param>
/// <param name="font">The font file for titles.</param>
public sealed class EffectFilters(string looks, string font)
{
    /// <exception cref="NotSupportedException">This player has no filter for it.</exception>
    public string Of(Effect effect, EffectContext on) => effect.Id switch
    {
        "primary-grade" => $"format={Rgb(on.Deep)},{Grade(effect)}",
        "curves" => $"format={Rgb(on.Deep)},{Curves(effect)}",
        "lut" => $"format={Rgb(on.Deep)},lut3d=file={Quoted(Path.Combine(looks, LookName(effect) + ".cube"))}",
        "noise-reduction" => $"format={WorkingFormat.Of(on.Deep)},{Denoise(effect["spatial"], effect["temporal"])}",
        "sharpen" => Invariant($"format={WorkingFormat.Of(on.Deep)},unsharp=5:5:{effect["amount"]}:5:5:0"),
        "blur" => Invariant($"format={WorkingFormat.Of(on.Deep)},gblur=sigma={Sigma(effect, on)}"),
        "glow" => Invariant(
            $"format={Rgb(on.Deep)},split[g{on.Number}a][g{on.Number}b];[g{on.Number}b]gblur=sigma={Sigma(effect, on)}[g{on.Number}c];[g{on.Number}a][g{on.Number}c]blend=all_mode=screen:all_opacity={effect["amount"]}"
        ),
        "film-grain" => Invariant($"format={WorkingFormat.Of(deep: false)},noise=alls={effect["strength"]}:allf=t:all_seed=7"),
        "stabilise" => Invariant(
            $"format={WorkingFormat.Of(deep: false)},deshake=rx={Steps16(effect["reach"] * on.Scale)}:ry={Steps16(effect["reach"] * on.Scale)}:edge=clamp"
        ),
        "motion-blur" => Invariant($"format={WorkingFormat.Of(on.Deep)},tmix=frames={Math.Round(effect["frames"])}"),
        "frame-blend" => $"format={WorkingFormat.Of(on.Deep)},tmix=frames=2",
        "key" => Invariant($"format=rgba,colorkey=color={Hue(effect["hue"])}:similarity={effect["tolerance"]}:blend={effect["softness"]}"),
        "transform" => $"format={WorkingFormat.Of(on.Deep)},{Transform(effect, on.Raster)}",
        EffectCatalogue.Placement => "null",
        "corner-pin" => $"format={WorkingFormat.Of(deep: false)},{CornerPin(effect)}",
        "lens-correction" => Invariant($"format={WorkingFormat.Of(on.Deep)},lenscorrection=k1={effect["first"]}:k2={effect["second"]}"),
        "title" => $"format={WorkingFormat.Of(on.Deep)},{Words(effect, on, "(w-text_w)/2")}",
        "moving-title" =>
            $"format={WorkingFormat.Of(on.Deep)},{Words(effect, on, Invariant($"w-mod(t*{effect["pace"] * on.Scale}\\,w+text_w)"))}",
        _ => throw new NotSupportedException($"This player has no filter for '{effect.Label}'; only stand-ins can play it."),
    };

    /// <summary>Whether it leaves parts of the picture transparent.</summary>
    public static bool HasTransparency(Effect effect) => effect.Id == "key";

    private static string Rgb(bool deep) => deep ? "gbrp10le" : "gbrp";

    private static string Grade(Effect effect)
    {
        var (s, gamma) = (effect["saturation"], 1 / effect["gamma"]);
        return string.Join(
            ',',
            "lutrgb=" + string.Join(':', Curve("r", effect["redGain"]), Curve("g", effect["greenGain"]), Curve("b", effect["blueGain"])),
            "colorchannelmixer=" + string.Join(':', Mix("r", 0, s), Mix("g", 1, s), Mix("b", 2, s)));

        string Curve(string channel, double gain) => Invariant($"{channel}='clip(maxval*pow(val/maxval*{gain},{gamma}),0,maxval)'");
    }

    /// <summary>One row of the saturation matrix; weights of ITU-R BT.709.</summary>
    private static string Mix(string row, int own, double saturation)
    {
        double[] luma = [0.2126, 0.7152, 0.0722];
        return string.Join(':', "rgb".Select((column, i) =>
            Invariant($"{row}{column}={(1 - saturation) * luma[i] + (i == own ? saturation : 0):0.######}")));
    }

    /// <summary>A smooth curve through five points, three of which can be lifted or lowered.</summary>
    private static string Curves(Effect effect) => Invariant(
        $"curves=all='0/0 0.25/{0.25 + effect["shadows"]:0.####} 0.5/{0.5 + effect["middle"]:0.####} 0.75/{0.75 + effect["highlights"]:0.####} 1/1'"
    );

    /// <summary>The filter takes zero to mean its own default, so that next to nothing stands for nothing.</summary>
    private static string Denoise(double spatial, double temporal)
    {
        var (s, t) = (Math.Max(spatial, 0.001), Math.Max(temporal, 0.001));
        return Invariant($"hqdn3d={s}:{s * 0.75}:{t}:{t * 0.75}");
    }

    internal static double Sigma(Effect effect, EffectContext on) => Math.Round(Math.Max(0.01, effect["radius"] * on.Scale / 2), 4);

    /// <summary>The search reach must be a multiple of 16, at most 64.</summary>
    private static int Steps16(double pixels) => Math.Clamp((int)Math.Round(pixels / 16) * 16, 0, 64);

    /// <summary>The colour of a hue at full saturation, as the filter takes it.</summary>
    internal static string Hue(double degrees)
    {
        return $"0x{Channel(5):X2}{Channel(3):X2}{Channel(1):X2}";

        int Channel(int n)
        {
            var k = (n + degrees / 60) % 6;
            return (int)Math.Round(255 * (1 - Math.Clamp(Math.Min(k, 4 - k), 0, 1)));
        }
    }

    /// <summary>Turned within its raster, then enlarged and cut back to it.</summary>
    private static string Transform(Effect effect, Raster raster)
    {
        var (width, height) = ((int)(raster.Width * effect["size"]) & ~1, (int)(raster.Height * effect["size"]) & ~1);
        return Invariant(
            $"rotate={effect["turn"]}*PI/180:c=black,scale={width}:{height}:flags=bilinear,crop={raster.Width}:{raster.Height}:(iw-ow)/2*{1 + effect["across"]}:(ih-oh)/2*{1 + effect["down"]}"
        );
    }

    private static string CornerPin(Effect effect)
    {
        string[] corners = ["topLeft", "topRight", "bottomLeft", "bottomRight"];
        return "perspective=" + string.Join(':', corners.Select((corner, i) =>
            Invariant($"x{i}={effect[corner + "X"]}*W:y{i}={effect[corner + "Y"]}*H"))) + ":sense=destination";
    }

    private string Words(Effect effect, EffectContext on, string left) => Invariant(
        $"drawtext=fontfile={Quoted(font)}:text={Quoted(effect.Text ?? string.Empty)}:expansion=none:fontcolor=white:fontsize={Math.Max(8, (int)(on.Raster.Height * effect["height"]))}:x={left}:y=h*0.8:shadowx=2:shadowy=2"
    );

    /// <summary>Only the name, so that a timeline from elsewhere cannot point at other files.</summary>
    private static string LookName(Effect effect) => Path.GetFileName(effect.Text ?? string.Empty);

    /// <summary>Text as one value inside a graph description.</summary>
    private static string Quoted(string text)
    {
        var inner = text.Replace("\\", "\\\\", StringComparison.Ordinal).Replace("'", "\\'", StringComparison.Ordinal)
            .Replace(":", "\\:", StringComparison.Ordinal);
        return "'" + inner.Replace("'", "'\\''", StringComparison.Ordinal) + "'";
    }
}
