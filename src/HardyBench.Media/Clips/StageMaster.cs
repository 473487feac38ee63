using HardyBench.Core.Footage;
using HardyBench.Core.Footage.Strips;

namespace HardyBench.Media.Clips;

/// <summary>What drives the bits of the master's pictures, each 100 as it ships.</summary>
/// <param name="MotionPercent">How fast everything moves.</param>
/// <param name="DetailPercent">How fine weave and stripes are.</param>
/// <param name="GrainPercent">How strong the grain is.</param>
public sealed record MasterLook(int MotionPercent = 100, int DetailPercent = 100, int GrainPercent = 100)
{
    public static MasterLook Plain { get; } = new();
}

/// <summary>What is written into a picture: the index strip and a timecode.</summary>
public sealed record PictureLabel(int ClipTag, int Frame, string Timecode);

/// <summary>The master that all clips are made from: a stage with moving lights, figures that cross it, a finely woven
/// backdrop and grain. Whole-number arithmetic throughout, so every machine draws the very same pictures.</summary>
public sealed class StageMaster(Raster raster, MasterLook look)
{
    /// <summary>Pictures are a function of time in this unit, so that 25 and 50 frames a second share pictures.</summary>
    public const int TicksPerSecond = 600;

    private const int Peak = 1023, White = 940, Black = 64;
    private const ushort NoColour = 512;
    private const int Beams = 4, Figures = 6;
    private readonly int width = raster.Width, height = raster.Height;

    /// <summary>Bytes of one picture: planar 4:2:2 with 10 bits a sample in 16, little endian.</summary>
    public int PictureBytes => width * height * 2 * 2;

    /// <summary>Draws the picture at a moment.</summary>
    /// <param name="tick">Moment in <see cref="TicksPerSecond"/>.</param>
    /// <param name="label">What the strip and the timecode say; null to leave both out.</param>
    /// <param name="picture">At least <see cref="PictureBytes"/> / 2 samples: brightness, then the two colour planes.</param>
    public void Draw(int tick, PictureLabel? label, ushort[] picture)
    {
        tick = (int)((long)tick * look.MotionPercent / 100);
        var beams = Enumerable.Range(0, Beams).Select(i => Beam.At(i, tick, width)).ToArray();
        var figures = Enumerable.Range(0, Figures).Select(i => Figure.At(i, tick, width, height)).ToArray();
        var rows = label is null ? height : height - IndexStrip.HeightIn(height);
        Parallel.For(0, rows, row => DrawRow(row, tick, label, picture, beams, figures));
        if (label is not null)
        {
            DrawStrip(label, rows, picture);
        }
    }

    private void DrawRow(int row, int tick, PictureLabel? label, ushort[] picture, Beam[] beams, Figure[] figures)
    {
        Span<int> luma = stackalloc int[width];
        Span<int> blue = stackalloc int[width / 2];
        Span<int> red = stackalloc int[width / 2];
        blue.Fill(512);
        red.Fill(512);
        var depth = row * 1024 / height;
        var floor = depth > 760 ? 150 + (depth - 760) / 2 : 110 + depth / 16;
        var detail = Math.Max(1, height * 100 / (270 * Math.Max(1, look.DetailPercent)));
        for (var x = 0; x < width; x++)
        {
            var weave = ((x / detail) ^ (row / detail)) & 7;
            luma[x] = floor + weave * 6;
        }

        foreach (var beam in beams)
        {
            beam.Light(depth, width, luma, blue, red);
        }

        foreach (var figure in figures)
        {
            figure.Draw(row, detail, luma, blue, red);
        }

        if (label is not null)
        {
            DrawTimecode(row, label.Timecode, luma, blue, red);
        }

        Store(row, tick, picture, luma, blue, red);
    }

    private void DrawStrip(PictureLabel label, int from, ushort[] picture)
    {
        var blocks = IndexStrip.BlocksFor(label.ClipTag, label.Frame);
        for (var row = from; row < height; row++)
        {
            for (var x = 0; x < width; x++)
            {
                picture[row * width + x] = (ushort)(blocks[IndexStrip.BlockAt(x, width)] ? White : Black);
            }

            picture.AsSpan(width * height + row * (width / 2), width / 2).Fill(NoColour);
            picture.AsSpan(width * height + height * (width / 2) + row * (width / 2), width / 2).Fill(NoColour);
        }
    }

    /// <summary>White on black, just above the strip, at the left.</summary>
    private void DrawTimecode(int row, string timecode, Span<int> luma, Span<int> blue, Span<int> red)
    {
        var block = Math.Max(1, height / 180);
        var top = height - IndexStrip.HeightIn(height) - (Glyphs.Height + 2) * block;
        var line = row < top ? -1 : (row - top) / block - 1;
        if (line < -1 || row < top)
        {
            return;
        }

        var columns = Math.Min(width, (timecode.Length * (Glyphs.Width + 1) + 1) * block);
        for (var x = 0; x < columns; x++)
        {
            var column = x / block - 1;
            var (letter, within) = column < 0 ? (0, Glyphs.Width) : Math.DivRem(column, Glyphs.Width + 1);
            var lit = line is >= 0 and < Glyphs.Height && within < Glyphs.Width && letter < timecode.Length
                && Glyphs.IsLit(timecode[letter], within, line);
            luma[x] = lit ? White : Black;
            (blue[x / 2], red[x / 2]) = (NoColour, NoColour);
        }
    }

    private void Store(int row, int tick, ushort[] picture, Span<int> luma, Span<int> blue, Span<int> red)
    {
        // Grain: a linear congruential sequence, started again for each row of each picture (Numerical Recipes' constants).
        var grain = unchecked((uint)(row * 2654435761L + tick * 40503L + 12345));
        var start = row * width;
        for (var x = 0; x < width; x++)
        {
            grain = unchecked(grain * 1664525 + 1013904223);
            picture[start + x] = (ushort)Math.Clamp(luma[x] + ((int)(grain >> 27) - 16) * look.GrainPercent / 100, 64, 940);
        }

        var half = width / 2;
        var (blueStart, redStart) = (width * height + row * half, width * height + half * height + row * half);
        for (var x = 0; x < half; x++)
        {
            picture[blueStart + x] = (ushort)Math.Clamp(blue[x], 64, 960);
            picture[redStart + x] = (ushort)Math.Clamp(red[x], 64, 960);
        }
    }

    /// <summary>There and back between 0 and <paramref name="range"/>, in straight lines.</summary>
    private static int Swing(int tick, int period, int range)
    {
        var at = tick % period;
        return (int)((at * 2 < period ? (long)at : period - at) * 2 * range / period);
    }

    /// <summary>A cone of light from above.</summary>
    private readonly record struct Beam(int Top, int Bottom, int Width, int Blue, int Red)
    {
        private static readonly (int Blue, int Red)[] Colours = [(150, -40), (-110, 90), (40, 150), (-60, -80)];

        public static Beam At(int index, int tick, int width) => new(
            width * (2 * index + 1) / (2 * Beams),
            Swing(tick + index * 170, 1500 + index * 240, width),
            width / 9,
            Colours[index].Blue,
            Colours[index].Red);

        public void Light(int depth, int width, Span<int> luma, Span<int> blue, Span<int> red)
        {
            var centre = Top + (Bottom - Top) * depth / 1024;
            var reach = Math.Max(1, Width * (depth + 200) / 1224);
            for (var x = Math.Max(0, centre - reach); x < Math.Min(width, centre + reach); x++)
            {
                var near = 256 - Math.Abs(x - centre) * 256 / reach;
                var power = near * near >> 8;
                luma[x] = Math.Min(Peak, luma[x] + (power * 300 >> 8));
                if ((x & 1) == 0)
                {
                    blue[x / 2] += power * Blue >> 8;
                    red[x / 2] += power * Red >> 8;
                }
            }
        }
    }

    /// <summary>A dancer: a head over a swaying body, in striped cloth.</summary>
    private readonly record struct Figure(int X, int HeadY, int Head, int Body, int Index)
    {
        public static Figure At(int index, int tick, int width, int height)
        {
            var size = height / 5 + index * height / 60;
            var x = Swing(tick * (2 + index % 3) + index * 311, 3600, width);
            var jump = Swing(tick * 3 + index * 97, 600, height / 12);
            return new Figure(x, height * 9 / 10 - size * 2 - jump, size / 4, size, index);
        }

        public void Draw(int row, int detail, Span<int> luma, Span<int> blue, Span<int> red)
        {
            var fromHead = row - HeadY;
            var reach = fromHead >= -Head && fromHead < Head ? Root(Head * Head - fromHead * fromHead)
                : fromHead >= Head && fromHead < Head + Body ? Head / 2 + (fromHead - Head) * Head / Body
                : 0;
            for (var x = Math.Max(0, X - reach); x < Math.Min(luma.Length, X + reach); x++)
            {
                var stripe = (x / detail + row / (detail * 2) + Index) % 5;
                luma[x] = 260 + Index * 70 + stripe * 24;
                if ((x & 1) == 0)
                {
                    blue[x / 2] = 512 + (Index % 3 - 1) * 90;
                    red[x / 2] = 512 + (Index % 2 == 0 ? 100 : -60);
                }
            }
        }

        /// <summary>Whole part of a square root, by Newton's method in whole numbers.</summary>
        private static int Root(int square)
        {
            var root = square;
            for (var next = (root + 1) / 2; next < root; next = (root + square / root) / 2)
            {
                root = next;
            }

            return root;
        }
    }
}
