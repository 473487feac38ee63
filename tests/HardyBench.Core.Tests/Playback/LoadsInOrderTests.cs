using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests.Playback;

public sealed class LoadsInOrderTests
{
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public void A_stretch_has_the_readings_that_a_look_through_all_finds(int seed)
    {
        var random = new Random(seed);
        var all = Enumerable.Range(0, 200)
            .Select(index => new LoadReading(TimeSpan.FromSeconds(random.Next(40)), LoadKind.Core, index, 0)).ToList();
        var loads = new LoadsInOrder(all);

        for (var round = 0; round < 200; round++)
        {
            var (from, to) = (TimeSpan.FromSeconds(random.Next(-2, 42)), TimeSpan.FromSeconds(random.Next(-2, 42)));
            Assert.Equal(all.Where(load => load.At >= from && load.At <= to).OrderBy(load => load.At), loads.Between(from, to));
        }

        Assert.Equal(
            all.OrderBy(load => load.At).GroupBy(load => (long)load.At.TotalSeconds).Select(second => second.ToList()), loads.BySecond());
    }
}
