using HardyBench.Core.Footage;
using HardyBench.Core.Machines;

namespace HardyBench.Core.Wording;

/// <summary>Machines in words.</summary>
public static class MachineWords
{
    /// <summary>What a media engine lacks, a phrase: "no 10-bit 4:2:2 for HEVC".</summary>
    public static string Of(EngineRefusal refusal) => refusal.Lack switch
    {
        MissingCapability.Codec => $"no {refusal.Format.Codec.StandardName}",
        MissingCapability.Profile => $"no {refusal.Format.BitDepth}-bit {refusal.Format.Chroma.Notation} for {refusal.Format.Codec.StandardName}",
        MissingCapability.Program => $"the editing program does not send it {refusal.Format.Codec.StandardName}",
        _ => $"no raster as large as {refusal.Format.Raster} for {refusal.Format.Codec.StandardName}",
    };
}
