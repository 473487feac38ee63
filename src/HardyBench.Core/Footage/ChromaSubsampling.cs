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
}

/// <summary>Arithmetic of chroma subsampling.</summary>
public static class ChromaSubsamplingFacts
{
    extension(ChromaSubsampling chroma)
    {
        /// <summary>Samples (brightness and colour) for each pixel: 1.5, 2 or 3.</summary>
        public double SamplesPerPixel => chroma switch
        {
            ChromaSubsampling.Quarter => 1.5,
            ChromaSubsampling.Half => 2,
            _ => 3,
        };

        /// <summary>The ratio as the trade writes it, "4:2:2".</summary>
        public string Notation => chroma switch
        {
            ChromaSubsampling.Quarter => "4:2:0",
            ChromaSubsampling.Half => "4:2:2",
            _ => "4:4:4",
        };
    }
}
