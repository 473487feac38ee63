using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.Machines;

public sealed class MediaEngineTests
{
    private static readonly MediaEngine Engine = new("e", 500, [new FormatCapability(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Hd)]);

    [Fact]
    public void A_refusal_says_what_is_missing()
    {
        Assert.Null(Engine.RefusalOf(Samples.HdAvc));
        Assert.Equal("no HEVC", MachineWords.Of(Engine.RefusalOf(Samples.UhdHevc422)!));
        Assert.Equal("no 10-bit 4:2:0 for AVC", MachineWords.Of(Engine.RefusalOf(Samples.HdAvc with { BitDepth = 10 })!));
        Assert.Equal("no raster as large as UHD for AVC", MachineWords.Of(Engine.RefusalOf(Samples.HdAvc with { Raster = Raster.Uhd })!));
    }
}
