namespace HardyBench.Core.Footage;

/// <summary>How often colour is sampled beside brightness.</summary>
public enum ChromaSubsampling
{
    /// <summary>4:2:0, one pair of colour samples for four pixels.</summary>
    Quarter,

    /// <summary>4:2:2, one pair of colour samples for two pixels.</summary>
    Half,

    /// <summary>4:4:4, a pair of colour samples for every pixel.</summary>
    Full,

    /// <summary>4:0:0, no colour.</summary>
    None,

    /// <summary>4:1:1, one pair of colour samples for four pixels side by side.</summary>
    QuarterAcross,

    /// <summary>4:4:0, one pair of colour samples for two pixels one above the other.</summary>
    HalfDown,

    /// <summary>4:1:0, one pair of colour samples for sixteen pixels.</summary>
    Sixteenth,
}

/// <summary>Arithmetic of chroma subsampling.</summary>
public static class ChromaSubsamplingFacts
{
    extension(ChromaSubsampling chroma)
    {
        /// <summary>Samples (brightness and colour) for each pixel, from 1 to 3.</summary>
        public double SamplesPerPixel => chroma switch
        {
            ChromaSubsampling.None => 1,
            ChromaSubsampling.Sixteenth => 1.125,
            ChromaSubsampling.Quarter or ChromaSubsampling.QuarterAcross => 1.5,
            ChromaSubsampling.Half or ChromaSubsampling.HalfDown => 2,
            _ => 3,
        };

        /// <summary>Whether a decoder for this subsampling decodes another: profiles for 4:2:2 include 4:2:0 and grey, those for 4:4:4
        /// both (ITU-T H.264 A.2, H.265 A.3). The unusual ones are decoded only by themselves.</summary>
        public bool Covers(ChromaSubsampling other) => other == chroma || chroma switch
        {
            ChromaSubsampling.Full => other is ChromaSubsampling.Half or ChromaSubsampling.Quarter or ChromaSubsampling.None,
            ChromaSubsampling.Half => other is ChromaSubsampling.Quarter or ChromaSubsampling.None,
            ChromaSubsampling.Quarter => other is ChromaSubsampling.None,
            _ => false,
        };

        /// <summary>The ratio as the trade writes it, "4:2:2".</summary>
        public string Notation => chroma switch
        {
            ChromaSubsampling.None => "4:0:0",
            ChromaSubsampling.Sixteenth => "4:1:0",
            ChromaSubsampling.Quarter => "4:2:0",
            ChromaSubsampling.QuarterAcross => "4:1:1",
            ChromaSubsampling.Half => "4:2:2",
            ChromaSubsampling.HalfDown => "4:4:0",
            _ => "4:4:4",
        };
    }
}
