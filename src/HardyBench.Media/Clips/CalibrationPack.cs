using HardyBench.Core.Footage;

namespace HardyBench.Media.Clips;

/// <summary>The clips that a machine is measured with: of each codec a few that differ in raster and data rate, so that what samples take
/// and what bits take can be distinguished. No timeline plays them.</summary>
public sealed class CalibrationPack
{
    private const string Family = "calibration";

    /// <summary>One GOP is the whole clip, so that what is measured over so many frames is the mean of the file.</summary>
    private const int Gop = 20;

    private static readonly MasterLook Calm = new(30, 50, 0), Wild = new(250, 200, 220);

    /// <summary>Every codec that can be made here.</summary>
    public static CalibrationPack Full { get; } = new(1, everyCodec: true, TimeSpan.FromSeconds(0.3));

    /// <summary>A third of each side and three codecs, for tests and small machines.</summary>
    public static CalibrationPack Small { get; } = new(3, everyCodec: false, TimeSpan.FromSeconds(0.4));

    private readonly Raster hd, uhd;
    private readonly int divisor;

    private CalibrationPack(int divisor, bool everyCodec, TimeSpan atLeast)
    {
        AtLeast = atLeast;
        (hd, uhd, this.divisor) = (Raster.Hd.DividedBy(divisor), Raster.Uhd.DividedBy(divisor), divisor);
        Recipes = [.. Common(), .. everyCodec ? Others() : []];
    }

    public IReadOnlyList<ClipRecipe> Recipes { get; }

    /// <summary>How long each passage is to play at least: several load readings, or costs could not be measured.</summary>
    public TimeSpan AtLeast { get; }

    /// <summary>Cheap to decode, with 8 bits a sample and with more: under these treatment is measured.</summary>
    public static IReadOnlyList<string> Plain { get; } = ["cal-avc-low", "cal-rdd36-low"];

    /// <summary>Of another raster than those, with 8 bits a sample and with more.</summary>
    public static IReadOnlyList<string> Scaled { get; } = ["cal-avc-large", "cal-rdd36-large"];

    private IEnumerable<ClipRecipe> Common() =>
    [
        .. Rates("cal-avc", Codec.Avc, ChromaSubsampling.Quarter, 8, 6, 60, 40),
        .. Rates("cal-hevc422", Codec.Hevc, ChromaSubsampling.Half, 10, 8, 60, 90),
        .. Grades("cal-rdd36", Codec.Rdd36, 10, 0, 3, 2),
    ];

    private IEnumerable<ClipRecipe> Others() =>
    [
        .. Rates("cal-avc422", Codec.Avc, ChromaSubsampling.Half, 10, 10, 80, null),
        .. Rates("cal-hevc", Codec.Hevc, ChromaSubsampling.Quarter, 8, 5, 40, null),
        .. Rates("cal-mpeg2", Codec.Mpeg2, ChromaSubsampling.Half, 8, 30, 80, null),
        .. Rates("cal-vp9", Codec.Vp9, ChromaSubsampling.Quarter, 8, 4, 25, null),
        .. Rates("cal-av1", Codec.Av1, ChromaSubsampling.Quarter, 8, 3, 20, null),
        .. Grades("cal-vc3", Codec.Vc3, 8, 0, 2, 0),
        .. Grades("cal-vc5", Codec.Vc5, 10, 0, 1, 0),
        .. Looks("cal-mjpeg", Codec.MotionJpeg, 8),
        .. Looks("cal-jpeg2000", Codec.Jpeg2000, 10),
        .. Looks("cal-ffv1", Codec.Ffv1, 10),
    ];

    /// <summary>By data rate, in Mb/s: low and high in HD, and one in UHD, or between them where there is none.</summary>
    private IEnumerable<ClipRecipe> Rates(
        string id, Codec codec, ChromaSubsampling chroma, int depth, double low, double high, double? large)
    {
        var one = Of(id, codec, chroma, depth) with { GopLength = Gop };
        yield return one with { Id = $"{id}-low", TargetRate = Megabits(low) };
        yield return one with { Id = $"{id}-high", TargetRate = Megabits(high), Look = Wild };
        yield return large is { } megabits
            ? one with { Id = $"{id}-large", Raster = uhd, TargetRate = Megabits(megabits) }
            : one with { Id = $"{id}-middle", TargetRate = Megabits((low + high) / 2) };
    }

    private IEnumerable<ClipRecipe> Grades(string id, Codec codec, int depth, int low, int high, int large)
    {
        var one = Of(id, codec, ChromaSubsampling.Half, depth);
        yield return one with { Id = $"{id}-low", Grade = low };
        yield return one with { Id = $"{id}-high", Grade = high };
        yield return one with { Id = $"{id}-large", Grade = large, Raster = uhd };
    }

    /// <summary>Where the encoder sets its own rate it follows the pictures.</summary>
    private IEnumerable<ClipRecipe> Looks(string id, Codec codec, int depth)
    {
        var one = Of(id, codec, ChromaSubsampling.Half, depth);
        yield return one with { Id = $"{id}-low", Look = Calm };
        yield return one with { Id = $"{id}-high", Look = Wild };
    }

    private ClipRecipe Of(string id, Codec codec, ChromaSubsampling chroma, int depth) =>
        new(id, "Measured with", Family, codec, chroma, depth, hd, new FrameRate(25), Gop, 1, null);

    private DataRate Megabits(double rate) => DataRate.FromMegabits(rate / (divisor * divisor));
}
