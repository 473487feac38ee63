using HardyBench.Core.Footage;
using HardyBench.Core.StandIns;

namespace HardyBench.Core.Tests.Footage;

/// <summary>A codec that is known by its standard has a name and a cost of its own.</summary>
public sealed class CodecTests
{
    public static TheoryData<Codec> Known => [.. Enum.GetValues<Codec>().Except([Codec.Other])];

    [Theory]
    [MemberData(nameof(Known))]
    public void A_known_codec_has_a_name_and_a_cost(Codec codec)
    {
        Assert.NotEqual(Codec.Other.StandardName, codec.StandardName);
        Assert.NotEqual(DecodeCost.Of(Codec.Other), DecodeCost.Of(codec));
    }
}
