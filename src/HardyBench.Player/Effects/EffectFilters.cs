using System.Globalization;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;

namespace HardyBench.Player.Effects;

/// <summary>Each effect as a chain of libavfilter's filters.</summary>
/// <param name="looks">Where the look-up tables lie.</param>
/// <param name="font">The font file for titles.</param>
public sealed class EffectFilters(string looks, string font)
{
    /// <param name="raster">The processed raster.</param>
    /// <param name="deep">Whether more than 8 bits a sample are kept.</param>
    public string Of(Effect effect, Raster raster, bool deep) => effect switch
    {
        PrimaryGrade grade => $"format={Rgb(deep)},{Grade(grade)}",
        Lut lut => $"format={Rgb(deep)},lut3d=file={Quoted(Path.Combine(looks, lut.Look + ".cube"))}",
        NoiseReduction noise => Text($"format={Yuv(deep)},hqdn3d={noise.Spatial}:{noise.Spatial * 0.75}:{noise.Temporal}:{noise.Temporal * 0.75}"),
        Title title => $"format={Yuv(deep)},{Words(title, raster)}",
        Placement => "null",
        _ => throw new NotSupportedException($"This player has no filter for '{effect.Label}'."),
    };

    /// <summary>Pixel format of pictures between effects.</summary>
    public static string Yuv(bool deep) => deep ? "yuv422p10le" : "yuv420p";

    private static string Rgb(bool deep) => deep ? "gbrp10le" : "gbrp";

    private static string Grade(PrimaryGrade grade)
    {
        var (s, gamma) = (grade.Saturation, 1 / grade.Gamma);
        return string.Join(
            ',',
            "lutrgb=" + string.Join(':', Curve("r", grade.RedGain), Curve("g", grade.GreenGain), Curve("b", grade.BlueGain)),
            "colorchannelmixer=" + string.Join(':', Mix("r", 0, s), Mix("g", 1, s), Mix("b", 2, s)));

        string Curve(string channel, double gain) => Text($"{channel}='clip(maxval*pow(val/maxval*{gain},{gamma}),0,maxval)'");
    }

    /// <summary>One row of the saturation matrix; weights of ITU-R BT.709.</summary>
    private static string Mix(string row, int own, double saturation)
    {
        double[] luma = [0.2126, 0.7152, 0.0722];
        return string.Join(':', "rgb".Select((column, i) =>
            Text($"{row}{column}={(1 - saturation) * luma[i] + (i == own ? saturation : 0):0.######}")));
    }

    private string Words(Title title, Raster raster) => Text(
        $"drawtext=fontfile={Quoted(font)}:text={Quoted(title.Words)}:expansion=none:fontcolor=white:fontsize={Math.Max(8, raster.Height / 12)}:x=(w-text_w)/2:y=h*0.8:shadowx=2:shadowy=2");

    private static string Text(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);

    /// <summary>Text as one value inside a graph description.</summary>
    private static string Quoted(string text)
    {
        var inner = text.Replace("\\", "\\\\", StringComparison.Ordinal).Replace("'", "\\'", StringComparison.Ordinal)
            .Replace(":", "\\:", StringComparison.Ordinal);
        return "'" + inner.Replace("'", "'\\''", StringComparison.Ordinal) + "'";
    }
}
