using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests.Playback.Loads;

public sealed class LoadUnitTests
{
    [Fact]
    public void Every_load_has_a_unit() =>
        Assert.All(Enum.GetValues<LoadKind>(), kind => Assert.True(Enum.IsDefined(LoadUnits.UnitOf(kind))));

    [Theory]
    [InlineData(LoadKind.Core, 1.0)]
    [InlineData(LoadKind.OwnThread, 1.0)]
    [InlineData(LoadKind.OwnDecode, null)]
    [InlineData(LoadKind.DriveRead, null)]
    public void A_share_ends_at_all_of_it_and_a_thread_at_one_core(LoadKind kind, double? ceiling) =>
        Assert.Equal(ceiling, LoadUnits.CeilingOf(kind));
}
