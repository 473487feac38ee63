using System.Globalization;
using System.Text;

namespace HardyBench.Formats.Luts;

/// <summary>Three-dimensional look-up tables as .cube text: a size, then size³ rows of red, green, blue from 0 to 1,
/// red running fastest.</summary>
public static class CubeLut
{
    /// <summary>Checks a table and tells its title and size.</summary>
    /// <exception cref="FormatException">It is no such table; the message names the line.</exception>
    public static (string? Title, int Size) Read(string text)
    {
        var (title, size, rows) = ((string?)null, 0, 0);
        foreach (var (index, raw) in text.Split('\n').Index())
        {
            var line = raw.Trim();
            if (line.Length == 0 || line[0] == '#' || line.StartsWith("DOMAIN_", StringComparison.Ordinal))
            {
                continue;
            }

            if (line.StartsWith("TITLE", StringComparison.Ordinal))
            {
                title = line[5..].Trim().Trim('"');
            }
            else if (line.StartsWith("LUT_3D_SIZE", StringComparison.Ordinal))
            {
                size =
                    int.TryParse(line[11..], NumberStyles.AllowLeadingWhite, CultureInfo.InvariantCulture, out var given)
                    && given is >= 2 and <= 256
                    ? given
                    : throw new FormatException($"Line {index + 1}: a table has 2 to 256 points on each axis.");
            }
            else if (line.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries) is { Length: 3 } values
                && values.All(value =>
                    double.TryParse(value, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) && double.IsFinite(number)
                )
            )
            {
                rows++;
            }
            else
            {
                throw new FormatException($"Line {index + 1}: three numbers were expected.");
            }
        }

        return size > 0 && rows == size * size * size
            ? (title, size)
            : throw new FormatException($"The table holds {rows} rows; a size of {size} needs {(long)size * size * size}.");
    }

    /// <param name="size">Points on each axis, at least 2.</param>
    /// <param name="look">What becomes of a colour; results are held within 0 to 1.</param>
    public static string Write(string title, int size, Func<double, double, double, (double Red, double Green, double Blue)> look)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(size, 2);
        var text = new StringBuilder();
        text.Append(CultureInfo.InvariantCulture, $"TITLE \"{title}\"\nLUT_3D_SIZE {size}\n");
        for (var i = 0; i < size * size * size; i++)
        {
            var (red, green, blue) = look(At(i % size), At(i / size % size), At(i / (size * size)));
            text.Append(CultureInfo.InvariantCulture, $"{Held(red):0.000000} {Held(green):0.000000} {Held(blue):0.000000}\n");
        }

        return text.ToString();

        double At(int step) => (double)step / (size - 1);

        static double Held(double value) => Math.Clamp(value, 0, 1);
    }
}
