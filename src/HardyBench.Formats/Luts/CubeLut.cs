using System.Globalization;
using System.Text;

namespace HardyBench.Formats.Luts;

/// <summary>Three-dimensional look-up tables as .cube text: a size, then size³ rows of red, green, blue from 0 to 1,
/// red running fastest.</summary>
public static class CubeLut
{
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
