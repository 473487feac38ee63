using HardyBench.Core;
using HardyBench.Formats.Files;
using HardyBench.Formats.Luts;

namespace HardyBench.Media.EffectFiles;

/// <summary>The look-up tables that ship with the product, written where the filters can read them.</summary>
public static class Looks
{
    /// <summary>Names of the looks.</summary>
    public const string WarmStage = "warm-stage";

    private const int Size = 17, LongestName = 60;

    /// <summary>Writes all looks to a folder, each under its final name only when it is whole.</summary>
    public static void WriteTo(string folder)
    {
        Directory.CreateDirectory(folder);
        var file = Path.Combine(folder, WarmStage + ".cube");
        if (!File.Exists(file))
        {
            WholeFile.Write(file, CubeLut.Write("Warm stage", Size, Warm));
        }
    }

    /// <summary>Names of the looks in a folder.</summary>
    public static IReadOnlyList<string> In(string folder) =>
        [
            .. Directory
                .EnumerateFiles(folder, "*.cube")
                .Select(file => Path.GetFileNameWithoutExtension(file))
                .Order(StringComparer.Ordinal),
        ];

    /// <summary>Adds somebody's own table under a name of its own.</summary>
    /// <returns>The look's name.</returns>
    /// <exception cref="FormatException">The text is no table; the message names the line.</exception>
    public static string Add(string folder, string fileName, string text)
    {
        CubeLut.Read(text);
        var name = Slug.Unused(
            Slug.Of(Path.GetFileNameWithoutExtension(fileName), LongestName, "look"),
            taken => File.Exists(Path.Combine(folder, taken + ".cube"))
        );
        WholeFile.Write(Path.Combine(folder, name + ".cube"), text);
        return name;
    }

    /// <summary>Lifts warm highlights and cools shadows a little; made up for the demo.</summary>
    private static (double Red, double Green, double Blue) Warm(double red, double green, double blue)
    {
        var light = 0.2126 * red + 0.7152 * green + 0.0722 * blue;
        return (Curve(red) + 0.05 * light, Curve(green), Curve(blue) + 0.04 * (1 - light) * blue);

        static double Curve(double value) => value * value * (3 - 2 * value) * 0.4 + value * 0.6;
    }
}
