using CsCheck;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;

namespace HardyBench.Core.Tests.StandIns;

/// <summary>What is reckoned without events is what the events come to, to the tick.</summary>
public sealed class StretchTests
{
    private static readonly FrameRate[] Rates = [new(24000, 1001), new(25), new(50), new(60000, 1001)];

    /// <summary>Services as shares of a slot, most of which play; stations in the order of a frame's way.</summary>
    private static readonly Gen<double[]> Shares =
        Gen.Double[0, 1.05].Select(share => 0.6 * share * share).Array[Enum.GetValues<Station>().Length];

    private static readonly Gen<(int Frames, int Interval, double[] Shares, int Without, double Uneven)> AnyPassage = Gen.Select(
        Gen.Int[20, 400], Gen.Frequency((2, Gen.Const(1)), (1, Gen.Int[2, 30])), Shares,
        Gen.Frequency((4, Gen.Int[128, 255]), (1, Gen.Int[0, 127])), Gen.Double[0, 1]);

    private static readonly Gen<Cooling?> AnyCooling = Gen.Select(
        Gen.Int[0, 3], Gen.Double[60, 110], (kind, limit) => kind == 0 ? null : new Cooling(false, 1.2, kind * 4, 25, limit, 8, 60));

    private static readonly Gen<PlayingPolicy> Policies = Gen.Frequency(
        (5, Gen.Const(PlayingPolicy.KeepTime)), (2, Gen.Const(PlayingPolicy.KeepFrames)), (1, Gen.Const(PlayingPolicy.Unpaced)));

    [Fact]
    public void A_stretch_reckoned_at_once_is_the_same_to_the_tick_as_event_by_event()
    {
        var (reckoned, all) = (0, 0);
        Gen.Select(
            AnyPassage.Array[1, 4],
            Gen.Int[0, 3].Select(i => Rates[i]),
            Policies,
            Gen.Int[1, 14],
            AnyCooling,
            Gen.Int[0, 1000]).Sample((passages, rate, policy, lookAhead, cooling, seed) =>
        {
            var demands = passages.Select(passage => Demand(passage, rate)).ToList();
            Simulation Played(bool everyEvent)
            {
                var simulation = new Simulation(
                    demands, rate, new PlaybackSettings(Policy: policy, LookAhead: lookAhead),
                    new ServiceSpread(seed, 0.08 * (seed % 3), seed % 2 * 0.002, Samples.Ms(12)),
                    cooling is null ? null : new Heat(cooling, mostWatts: seed % 5 == 0 ? 50 : null), cores: 4, everyEvent: everyEvent);
                simulation.Play();
                return simulation;
            }

            var (events, quick) = (Played(true), Played(false));

            Assert.Equal(0, events.FramesInStretches);
            Assert.Equal(events.Records, quick.Records);
            Assert.Equal((events.StartLag, events.End), (quick.StartLag, quick.End));
            Assert.Equal(events.HeatByInterval, quick.HeatByInterval);
            foreach (var station in Enum.GetValues<Station>())
            {
                foreach (var kind in Enum.GetValues<VisitKind>())
                {
                    var intervals = Enumerable.Range(0, (int)(events.End / BusyLedger.Interval) + 3);
                    Assert.Equal(
                        intervals.Select(index => events.Busy.Share(station, kind, index)),
                        intervals.Select(index => quick.Busy.Share(station, kind, index)));
                }
            }

            Interlocked.Add(ref reckoned, quick.FramesInStretches);
            Interlocked.Add(ref all, quick.Records.Count);
        }, iter: 500);

        // Else nothing would have been compared.
        Assert.InRange((double)reckoned / all, 0.1, 1);
    }

    /// <summary>Of footage that plays with room to spare, only the beginning and the end of a passage are left to events.</summary>
    [Theory]
    [InlineData(1, null)]
    [InlineData(12, null)]
    [InlineData(1, 95.0)]
    public void Most_of_a_passage_that_holds_is_reckoned_at_once(int interval, double? limit)
    {
        var simulation = new Simulation(
            [Demand((2000, interval, [0.05, 0, 0.5, 0.05, 0.2, 0, 0, 0], 0, 0), new FrameRate(25))],
            new FrameRate(25),
            new PlaybackSettings(),
            new ServiceSpread(1, 0.08, 0.0002, Samples.Ms(12)),
            limit is { } celsius ? new Heat(new Cooling(false, 0.5, 400, 25, celsius, 8, 60)) : null);

        Assert.All(simulation.Play(), frame => Assert.Equal(FrameStatus.OnTime, frame.Status));
        Assert.InRange(simulation.FramesInStretches, 1900, 2000);
    }

    [Fact]
    public void Nothing_is_reckoned_at_once_while_frames_are_late()
    {
        var simulation = new Simulation(
            [Demand((2000, 1, [0.05, 0, 1.3, 0.05, 0.2, 0, 0, 0], 0, 0), new FrameRate(25))],
            new FrameRate(25), new PlaybackSettings(), ServiceSpread.None, null);

        Assert.Contains(simulation.Play(), frame => frame.Status == FrameStatus.Dropped);
        Assert.InRange(simulation.FramesInStretches, 0, 20);
    }

    /// <param name="passage">Its services as shares of a slot; which stations it does not go to, by their bits.</param>
    private static PassageDemand Demand((int Frames, int Interval, double[] Shares, int Without, double Uneven) passage, FrameRate rate)
    {
        var slot = rate.FrameDuration;
        var kinds = new[]
        {
            (Station.Drive, VisitKind.Read), (Station.SwapDrive, VisitKind.Read), (Station.MediaEngine, VisitKind.Decode),
            (Station.Processor, VisitKind.Decode), (Station.DecoderCores, VisitKind.Decode), (Station.Bus, VisitKind.Copy),
            (Station.OneCore, VisitKind.Effects), (Station.Graphics, VisitKind.Effects),
        };
        var visits = kinds
            .Where(visit => ((passage.Without >> (int)visit.Item1) & 1) == 0 && passage.Shares[(int)visit.Item1] > 0)
            .Select(visit => new Visit(visit.Item1, visit.Item2, [.. ServicesOf(visit)]))
            .ToList();
        return new PassageDemand(passage.Frames, visits, passage.Interval, 0, 0, 0, 0, []) { CoresDecoding = 2 };

        IEnumerable<TimeSpan> ServicesOf((Station At, VisitKind Kind) visit) => visit.Kind == VisitKind.Decode
            ? Enumerable.Range(0, passage.Interval).Select(position =>
                slot * passage.Shares[(int)visit.At] * (position == 0 ? 1 + passage.Uneven : 1 - (passage.Uneven / 2 * (position % 2))))
            : [slot * passage.Shares[(int)visit.At]];
    }
}
