using System.Globalization;
using System.Text;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Imports;
using HardyBench.Formats.Interchange;

namespace HardyBench.Formats.Tests.Interchange;

/// <summary>Lists far longer than anybody's timeline.</summary>
public sealed class LongListTests
{
    private static readonly FrameRate R25 = new(25);

    /// <summary>With a speed and a comment to every event, each of which looks for the event it means.</summary>
    private static string ListOf(int events)
    {
        var list = new StringBuilder("TITLE: LONG\nFCM: NON-DROP FRAME\n");
        for (var n = 0; n < events; n++)
        {
            var (from, to) = (Timecode.Of(n * 2, R25), Timecode.Of((n * 2) + 2, R25));
            list.Append(CultureInfo.InvariantCulture, $"{n + 1:000000}  R{n % 50:00}  V  C  00:00:00:00 00:00:00:04 {from} {to}\n")
                .Append(CultureInfo.InvariantCulture, $"M2  R{n % 50:00}  050.0  00:00:00:00\n* FROM CLIP NAME: c{n % 50}\n* NOTE {n}\n");
        }

        return list.ToString();
    }

    [Fact]
    public void Fifty_thousand_events_are_read_and_refused_as_too_many_passages()
    {
        var read = EdlReader.Read(ListOf(50_000), R25);

        Assert.Equal(50_000, read.Items.Count);
        Assert.All(read.Items, item => Assert.Equal(2, item.Retime!.Speed));
        Assert.Contains(
            $"more than {TimelineLimits.MaxPassages} passages",
            Assert.Throws<TimelineRefusedException>(() => StackCutter.Cut(read, "t", Raster.Hd, _ => null)).Message,
            StringComparison.Ordinal);
        Assert.InRange(read.Notes.Count, 1, 1000);
    }

    [Fact]
    public void Nobody_waits_for_a_list_that_is_not_wanted_any_more()
    {
        using var stop = new CancellationTokenSource();
        stop.Cancel();

        Assert.Throws<OperationCanceledException>(() => EdlReader.Read(ListOf(2), R25, stop.Token));
        Assert.Throws<OperationCanceledException>(() => StackCutter.Cut(EdlReader.Read(ListOf(2), R25), "t", Raster.Hd, _ => null, stop.Token));
    }
}
