using HardyBench.Core.Footage;

namespace HardyBench.Media.Clips;

/// <summary>The recipes that ship: one performance in many encodings, in families that differ in one thing.</summary>
public static class StarterPack
{
    /// <summary>At the rasters that the titles say.</summary>
    public static IReadOnlyList<ClipRecipe> Full { get; } = [.. Recipes(1)];

    /// <summary>The same encodings at a third of each side, for tests and small machines.</summary>
    public static IReadOnlyList<ClipRecipe> Small { get; } = [.. Recipes(3)];

    /// <summary>The clips that the demo timeline plays; they are made without being asked for.</summary>
    public static IReadOnlyList<string> DemoIds { get; } = ["hd-avc-25", "hd-avc-50", "uhd-hevc-25", "hd-mezz-25", "uhd-mezz-25"];

    private const ChromaSubsampling C420 = ChromaSubsampling.Quarter, C422 = ChromaSubsampling.Half, C444 = ChromaSubsampling.Full;

    private const string Codecs = "codecs at HD 25", Rates = "rates, AVC at HD", Rasters = "rasters, AVC", Uhd = "codecs at UHD 25",
        Gops = "GOPs, AVC at HD 25", DataRates = "data rates, AVC at HD 25", Looks = "pictures, AVC at HD 25", Stills = "stills";

    private static IEnumerable<ClipRecipe> Recipes(int divisor)
    {
        var (hd, uhd) = (Raster.Hd.DividedBy(divisor), Raster.Uhd.DividedBy(divisor));
        var (r25, share) = (new FrameRate(25), 1.0 / (divisor * divisor));
        var plain = new ClipRecipe("hd-avc-25", "Wide, stage camera", Codecs, Codec.Avc, C420, 8, hd, r25, 50, 50, Rate(12));

        // What the demo plays comes first.
        yield return plain;
        yield return plain with
        {
            Id = "hd-avc-50",
            Title = "Close, gimbal camera",
            Family = Rates,
            Rate = new FrameRate(50),
            FrameCount = 100,
            GopLength = 100,
            TargetRate = Rate(20),
        };
        yield return new("uhd-hevc-25", "Front, cinema camera", Uhd, Codec.Hevc, C422, 10, uhd, r25, 50, 50, Rate(100));
        yield return Intermediate("hd-mezz-25", "Wide, as an intermediate", Codec.Rdd36, 10, 2);
        yield return Intermediate("uhd-mezz-25", "Front, as an intermediate", Codec.Rdd36, 10, 2) with { Family = Uhd, Raster = uhd };

        yield return Long("hd-avc10-25", "AVC, 10 bit", Codec.Avc, C420, 10, 14);
        yield return Long("hd-avc422-25", "AVC, 10 bit 4:2:2", Codec.Avc, C422, 10, 20);
        yield return Intra("hd-avc-25-intra", "AVC all-intra", C420, 8, 60);
        yield return Intra("hd-avc10-25-intra", "AVC all-intra, 10 bit", C420, 10, 70);
        yield return Intra("hd-avc422-25-intra", "AVC all-intra, 10 bit 4:2:2", C422, 10, 100);
        yield return Long("hd-hevc-25", "HEVC", Codec.Hevc, C420, 8, 8);
        yield return Long("hd-hevc10-25", "HEVC, 10 bit", Codec.Hevc, C420, 10, 10);
        yield return Long("hd-hevc422-25", "HEVC, 10 bit 4:2:2", Codec.Hevc, C422, 10, 14);
        yield return Long("hd-av1-25", "AV1", Codec.Av1, C420, 8, 6);
        yield return Long("hd-vp9-25", "VP9", Codec.Vp9, C420, 8, 8);
        yield return Long("hd-mpeg2-25", "MPEG-2 4:2:2", Codec.Mpeg2, C422, 8, 50) with { GopLength = 12, BidirectionalFrames = 2 };
        yield return Intermediate("hd-mjpeg-25", "Motion JPEG", Codec.MotionJpeg, 8, 0);
        yield return Intermediate("hd-jpeg2000-25", "JPEG 2000", Codec.Jpeg2000, 10, 0) with { FrameCount = 25 };
        yield return Intermediate("hd-vc3-low-25", "VC-3, lowest rate", Codec.Vc3, 8, 0);
        yield return Intermediate("hd-vc3-25", "VC-3, middle rate", Codec.Vc3, 8, 1);
        yield return Intermediate("hd-vc3-10bit-25", "VC-3, 10 bit", Codec.Vc3, 10, 3);
        yield return Intermediate("hd-vc5-low-25", "VC-5, low rate", Codec.Vc5, 10, 0);
        yield return Intermediate("hd-vc5-25", "VC-5, film rate", Codec.Vc5, 10, 1);
        yield return Intermediate("hd-mezz-lowest-25", "RDD 36, lowest rate", Codec.Rdd36, 10, 0);
        yield return Intermediate("hd-mezz-low-25", "RDD 36, low rate", Codec.Rdd36, 10, 1);
        yield return Intermediate("hd-mezz-high-25", "RDD 36, high rate", Codec.Rdd36, 10, 3);
        yield return Intermediate("hd-ffv1-25", "FFV1, lossless", Codec.Ffv1, 10, 0) with { FrameCount = 25 };

        foreach (var (id, rate, megabits) in new[]
        {
            ("hd-avc-23976", new FrameRate(24000, 1001), 12),
            ("hd-avc-24", new FrameRate(24), 12),
            ("hd-avc-2997", new FrameRate(30000, 1001), 14),
            ("hd-avc-60", new FrameRate(60), 22), ("hd-avc-100", new FrameRate(100), 30), ("hd-avc-120", new FrameRate(120), 34),
        })
        {
            var frames = rate.NominalFramesPerSecond * 2;
            yield return plain with
            {
                Id = id,
                Title = $"{rate} frames a second",
                Family = Rates,
                Rate = rate,
                FrameCount = frames,
                GopLength = frames,
                TargetRate = Rate(megabits),
            };
        }

        foreach (var (id, title, raster, megabits) in new[]
        {
            ("sd-avc-25", "720×576", new Raster(720, 576), 4),
            ("uhd-avc-25", "UHD", Raster.Uhd, 45),
            ("dci4k-avc-25", "DCI 4K", new Raster(4096, 2160), 50),
            ("5k-avc-25", "5120×2700", new Raster(5120, 2700), 70), ("8k-avc-25", "8192×4320", new Raster(8192, 4320), 160),
        })
        {
            yield return plain with
            {
                Id = id,
                Title = title,
                Family = Rasters,
                Raster = raster.DividedBy(divisor),
                FrameCount = raster.Width > 5000 ? 25 : 50,
                TargetRate = Rate(megabits),
            };
        }

        yield return new("uhd-hevc420-25", "UHD HEVC, 10 bit 4:2:0", Uhd, Codec.Hevc, C420, 10, uhd, r25, 50, 50, Rate(60));
        yield return plain with { Id = "hd-avc-25-gop12", Title = "GOP of 12", Family = Gops, GopLength = 12 };
        yield return plain with { Id = "hd-avc-25-nob", Title = "No B frames", Family = Gops, BidirectionalFrames = 0 };
        yield return plain with { Id = "hd-avc-25-40m", Title = "40 Mb/s", Family = DataRates, TargetRate = Rate(40) };
        yield return plain with { Id = "hd-avc-25-100m", Title = "100 Mb/s", Family = DataRates, TargetRate = Rate(100) };
        yield return plain with
        {
            Id = "hd-avc-25-calm",
            Title = "Little motion, no grain",
            Family = Looks,
            Look = new MasterLook(30, 50, 0),
        };
        yield return plain with
        {
            Id = "hd-avc-25-wild",
            Title = "Fast, fine and grainy",
            Family = Looks,
            Look = new MasterLook(250, 200, 220),
        };
        yield return plain with { Id = "hd-avc-25-nostrip", Title = "Without the index strip", Family = Looks, Strip = false };
        yield return new(
            "still-24mp",
            "Large still, 6000×4000",
            Stills,
            Codec.Png,
            C444,
            8,
            new Raster(6000, 4000).DividedBy(divisor),
            r25,
            1,
            1,
            null
        )
        {
            Strip = false,
        };

        DataRate Rate(double megabits) => DataRate.FromMegabits(megabits * share);

        ClipRecipe Long(string id, string title, Codec codec, ChromaSubsampling chroma, int depth, double megabits) =>
            plain with { Id = id, Title = title, Codec = codec, Chroma = chroma, BitDepth = depth, TargetRate = Rate(megabits) };

        ClipRecipe Intra(string id, string title, ChromaSubsampling chroma, int depth, double megabits) =>
            Long(id, title, Codec.Avc, chroma, depth, megabits) with { GopLength = 1 };

        ClipRecipe Intermediate(string id, string title, Codec codec, int depth, int grade) => plain with
        {
            Id = id, Title = title, Codec = codec, Chroma = C422, BitDepth = depth, GopLength = 1, TargetRate = null, Grade = grade,
        };
    }
}
