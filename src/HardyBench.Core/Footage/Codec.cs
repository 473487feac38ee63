namespace HardyBench.Core.Footage;

/// <summary>Codecs by the names of their open standards.</summary>
public enum Codec
{
    /// <summary>ITU-T H.264.</summary>
    Avc,

    /// <summary>ITU-T H.265.</summary>
    Hevc,

    /// <summary>SMPTE RDD 36, an all-intra intermediate.</summary>
    Rdd36,
}

/// <summary>What is true of a codec whatever the clip.</summary>
public static class CodecFacts
{
    extension(Codec codec)
    {
        /// <summary>The name of the standard as people write it.</summary>
        public string StandardName => codec switch
        {
            Codec.Avc => "AVC",
            Codec.Hevc => "HEVC",
            Codec.Rdd36 => "RDD 36",
            _ => throw new ArgumentOutOfRangeException(nameof(codec), codec, "This codec has no name yet."),
        };
    }
}
