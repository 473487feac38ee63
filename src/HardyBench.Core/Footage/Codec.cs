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

    /// <summary>AOMedia Video 1.</summary>
    Av1,

    /// <summary>VP9.</summary>
    Vp9,

    /// <summary>ITU-T H.262.</summary>
    Mpeg2,

    /// <summary>Motion JPEG.</summary>
    MotionJpeg,

    /// <summary>ISO/IEC 15444.</summary>
    Jpeg2000,

    /// <summary>SMPTE ST 2019-1, an all-intra intermediate.</summary>
    Vc3,

    /// <summary>SMPTE ST 2073, an all-intra intermediate.</summary>
    Vc5,

    /// <summary>RFC 9043, lossless.</summary>
    Ffv1,

    /// <summary>ISO/IEC 15948, for stills.</summary>
    Png,

    /// <summary>A compressed mosaic; stand-ins only, no player here reads it.</summary>
    CameraRaw,

    /// <summary>Any other codec; played where the decoding libraries know it.</summary>
    Other,
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
            Codec.Av1 => "AV1",
            Codec.Vp9 => "VP9",
            Codec.Mpeg2 => "MPEG-2",
            Codec.MotionJpeg => "Motion JPEG",
            Codec.Jpeg2000 => "JPEG 2000",
            Codec.Vc3 => "VC-3",
            Codec.Vc5 => "VC-5",
            Codec.Ffv1 => "FFV1",
            Codec.Png => "PNG",
            Codec.CameraRaw => "camera raw",
            _ => "other codec",
        };

        /// <summary>Whether every frame stands alone whatever the encoder's settings.</summary>
        public bool IsAlwaysIntra => codec is Codec.Rdd36 or Codec.MotionJpeg or Codec.Jpeg2000 or Codec.Vc3 or Codec.Vc5
            or Codec.Png or Codec.CameraRaw;
    }
}
