using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;

namespace HardyBench.Core.Tests.Playback;

/// <summary>What keep time shows when it is too much, against what the machine gets through: the capacity c = 1 / max D of the bottleneck
/// law (Denning and Buzen 1978), and the same passage with less work.</summary>
public sealed class OverloadLawTests
{
    private const int Settling = 75, Minute = 1500;

    private static readonly FrameRate Rate = new(25);

    /// <summary>A passage of all-intra footage, or of one whose effects are the slow part, at 0.04 to 0.98 of what it needs: below that a
    /// frame takes longer than one may be overdue.</summary>
    private static PassageDemand TooMuch(Random random)
    {
        var slow = 40 / (0.04 + 0.94 * random.NextDouble());
        var other = Math.Min(slow * (0.05 + 0.55 * random.NextDouble()), 60);
        return random.Next(4) switch
        {
            0 => Demand(1, slow, other / 8, other / 20, other / 4, random.Next(2) == 0),
            1 => Demand(1, other / 8, other / 20, other / 4, slow, random.Next(2) == 0),
            2 => Demand(1, other / 4, slow / 8, other / 8, other / 20, random.Next(2) == 0),
            _ => Demand(50, 0.2, Math.Min(other, 12), 0.5, slow),
        };
    }

    /// <summary>Trials that are the same in every run.</summary>
    private static void Many(int trials, Action<Random, int> trial)
    {
        for (var seed = 0; seed < trials; seed++)
        {
            trial(new Random(seed), seed);
        }
    }

    [Theory]
    [InlineData(0, 0.95, 0.05, 0.5)]
    [InlineData(0.3, 0.9, 0.15, 0.7)]
    [InlineData(0.6, 0.85, 0.25, 1.25)]
    public void It_shows_what_the_machine_gets_through_evenly_and_wastes_little(
        double variation,
        double share,
        double wasted,
        double uneven
    ) =>
        Many(300, (random, seed) =>
        {
            var demand = TooMuch(random);
            var capacity = demand.ThroughputBound(Rate.FramesPerSecond);
            var played = Play(demand, variation, seed).Skip(Settling).ToList();
            var shown = played.Where(IsShown).ToList();
            var gaps = shown.Zip(shown.Skip(1), (one, other) => (other.Shown - one.Shown)!.Value / Rate.FrameDuration).ToList();

            Assert.True(
                shown.Count >= share * capacity * played.Count / 25 - 1,
                $"{shown.Count / (played.Count / 25.0):0.0} of {capacity:0.0} a second {Words(demand)}"
            );
            Assert.True(Wasted(played) <= wasted, $"{Wasted(played):0.00} wasted {Words(demand)}");
            Assert.True(
                shown.Count < 100 || Deviation(gaps) <= uneven * gaps.Average(),
                $"deviation {Deviation(gaps):0.00}, mean {gaps.Average():0.00} {Words(demand)}"
            );
        });

    [Theory]
    [InlineData(1.1, 0, 1)]
    [InlineData(1.1, 0.08, 1)]
    [InlineData(1.03, 0.3, 0.95)]
    public void What_is_a_little_less_than_the_machine_gets_through_holds(double capacity, double variation, double share) =>
        Many(200, (random, seed) =>
        {
            var (slowest, interval) = (random.Next(3), random.Next(1, 50));
            var slow = 40 / capacity;
            var frames = Play(
                slowest switch
                {
                    0 => Demand(interval, 1, slow, 1, 3),
                    1 => Demand(1, slow, 3, 1, 2),
                    _ => Demand(interval, 1, 4, 2, slow),
                },
                variation,
                seed
            );

            Assert.True(frames.Count(IsShown) >= share * frames.Count, $"{frames.Count(IsShown)} of {frames.Count}");
        });

    /// <summary>Shown in a GOP of G at a share f of what is needed, when every second frame is unreferenced, the others are a share ρ of
    /// the work, and A may be decoded ahead. From ρ on all referenced ones and as many others as the rest of the time allows. Below,
    /// referenced ones alone are too much: f·G/(2ρ) of them are what the time allows, as long as they come no more than a second after
    /// their slots. All are decoded while there is time in hand, so the A last A / (1 − f); then referenced ones fall back by 1 − f/ρ each
    /// slot until they are a second behind.</summary>
    private static double Allowed(int gop, double share, double referenced)
    {
        var (ahead, pace) = (new PlaybackSettings().LookAhead + PlaybackSettings.DecodeAhead, share / referenced);
        return pace >= 1
            ? gop / 2.0 * (1 + (share - referenced) / (1 - referenced))
            : Math.Min(pace * gop / 2, (ahead / (1 - share)) + (pace / 2 * (Timing.MaxOverdue / Rate.FrameDuration) / (1 - pace)));
    }

    /// <summary>A GOP whose frames cost the same, or go by their bits for the most part, as I, P and B frames do.</summary>
    [Theory]
    [InlineData(0, 0.8, false)]
    [InlineData(0.08, 0.8, false)]
    [InlineData(0.3, 0.8, false)]
    [InlineData(0, 0.8, true)]
    [InlineData(0.08, 0.8, true)]
    [InlineData(0.3, 0.8, true)]
    public void Of_long_GOP_footage_it_shows_what_time_allows(double variation, double share, bool byBits) =>
        Many(byBits ? 300 : 150, (random, seed) =>
        {
            var (gop, speed, bits) = (random.Next(24, 251), 0.3 + 0.6 * random.NextDouble(), byBits ? 0.2 + 0.8 * random.NextDouble() : 0);
            var costs = Enumerable.Range(0, gop).Select(position => 1 - bits + bits * DecodeCost.BitShare(position, gop)).ToList();
            var referenced = costs.Where((_, position) => DecodeCost.IsReferenced(position, gop)).Sum() / gop;
            var frames = Play(Demand(gop, 0.1, costs.Select(cost => cost * 40 / speed), 0, 3), variation, seed, 8 * gop).Skip(gop).ToList();
            var allowed = Allowed(gop, speed, referenced) * frames.Count / gop;

            Assert.True(
                frames.Count(IsShown) >= share * allowed,
                $"{frames.Count(IsShown)} of {allowed:0}, GOP {gop}, at {speed:0.00}, {referenced:0.00} of it for others"
            );
        });

    /// <summary>GOPs of up to two seconds and a half, however much too much they are: what is decoded is shown, and the picture goes
    /// on.</summary>
    [Theory]
    [InlineData(0)]
    [InlineData(0.3)]
    public void Of_short_GOPs_it_shows_most_of_what_is_decoded_at_any_overload(double variation) => Many(300, (random, seed) =>
    {
        var (gop, speed, bits) = (random.Next(6, 61), 0.15 + 0.8 * random.NextDouble(), 0.8 * random.NextDouble());
        var costs = Enumerable.Range(0, gop).Select(position => 1 - bits + bits * DecodeCost.BitShare(position, gop));
        var frames = Play(Demand(gop, 0.1, costs.Select(cost => cost * 40 / speed), 0, 3), variation, seed).Skip(Settling).ToList();
        var shown = frames.Where(IsShown).ToList();
        var freeze = shown.Zip(shown.Skip(1), (one, other) => (other.Shown - one.Shown)!.Value.TotalSeconds).Max();
        var words = $"GOP {gop}, at {speed:0.00}, {bits:0.00} of it by bits";

        Assert.True(shown.Count >= 0.55 * speed * frames.Count, $"{shown.Count} of {speed * frames.Count:0}, {words}");
        Assert.True(Wasted(frames) <= 0.15, $"{Wasted(frames):0.00} wasted, {words}");
        Assert.True(freeze <= 3.5, $"frozen for {freeze:0.0} s, {words}");
    });

    /// <summary>Pairs of passages of which one asks less in one respect: a smaller scale or fewer effects, a proxy, a faster
    /// part.</summary>
    [Theory]
    [InlineData(0)]
    [InlineData(0.08)]
    public void Less_work_never_shows_fewer(double variation)
    {
        const int Pairs = 1000;
        var fewer = new List<string>();
        Many(Pairs, (random, seed) =>
        {
            var gop = random.Next(5) switch { 3 => 12, 4 => 50, _ => 1 };
            double Between(double low, double high) => low * Math.Pow(high / low, random.NextDouble());
            var (read, decode, copy, effects) = (Between(0.1, 60), Between(2, 200), Between(0.5, 30), Between(1, 300));
            var (what, less, shared) = (random.Next(5), Between(0.1, 1), random.Next(2) == 0);
            var whole = Shown(Demand(gop, read, decode, copy, effects, shared, 250), variation, seed);
            var part = Shown(
                what switch
                {
                    0 => Demand(gop, read * less, decode, copy, effects, shared, 250),
                    1 => Demand(gop, read, decode * less, copy, effects, shared, 250),
                    2 => Demand(gop, read, decode, copy * less, effects, shared, 250),
                    3 => Demand(gop, read, decode, copy, effects * less, shared, 250),
                    _ => Demand(1, read * less, decode * less, copy, effects, shared, 250),
                }, variation, seed);
            if (part < whole - 2)
            {
                fewer.Add(
                    $"{whole} → {part}: {what}, {less:0.00} of it, GOP {gop}, {read:0.0}, {decode:0.0}, {copy:0.0}, {effects:0.0}, {shared}"
                );
            }
        });

        Assert.True(fewer.Count <= Pairs * 0.002, $"{fewer.Count} of {Pairs}: {string.Join("; ", fewer)}");
    }

    [Theory]
    [InlineData(200)]
    [InlineData(90)]
    [InlineData(60)]
    [InlineData(1000)]
    public void After_a_passage_that_is_too_much_the_first_frames_of_a_light_one_are_on_time(double effects)
    {
        foreach (
            var heavy in new[]
            {
                Demand(1, 1, 8, 1, effects, frames: 250),
                Demand(1, 1, effects, 1, 8, frames: 250),
                Demand(50, 1, effects / 2, 1, 8, frames: 250),
            }
        )
        {
            var frames = new Simulation(
                [heavy, Demand(1, 1, 6, 1, 8, frames: 50)],
                Rate,
                new PlaybackSettings(),
                ServiceSpread.None,
                null
            ).Play();

            var notOnTime = frames
                .Skip(250)
                .Where(frame => frame.Status != FrameStatus.OnTime)
                .Select(frame => $"{frame.Frame} {frame.Status}");
            Assert.True(!notOnTime.Any(), $"{string.Join(", ", notOnTime)} after {Words(heavy)}");
        }
    }

    /// <summary>Long-GOP footage that takes four times what there is, with whole GOPs to run up through, before work that takes a quarter:
    /// what is begun of the first in its last moments is given up with it.</summary>
    [Theory]
    [InlineData(50)]
    [InlineData(1)]
    public void A_passage_that_is_too_much_takes_nothing_from_the_next_once_it_is_over(int interval)
    {
        for (var seed = 0; seed < 40; seed++)
        {
            var heavy = Demand(interval, 0.2, 160 + seed, 0.5, 5, frames: 75 + seed);
            var frames = new Simulation(
                [heavy, Demand(1, 0.2, 10, 0.5, 5, frames: 75)], Rate, new PlaybackSettings(),
                new ServiceSpread(seed, 0.08, 0, TimeSpan.Zero), null).Play();

            // What is under way at the cut is one frame, and a slot is 40 ms.
            var missed = frames.Skip(heavy.FrameCount).Count(frame => !IsShown(frame));
            Assert.True(missed <= 8, $"{missed} frames missed after {Words(heavy)}");
        }
    }

    private static bool IsShown(FrameRecord frame) => frame.Shown is not null;

    private static int Shown(PassageDemand demand, double variation, int seed) => Play(demand, variation, seed).Count(IsShown);

    private static IReadOnlyList<FrameRecord> Play(PassageDemand demand, double variation, int seed, int? frames = null) => new Simulation(
        [demand with { FrameCount = frames ?? demand.FrameCount }],
        Rate,
        new PlaybackSettings(),
        new ServiceSpread(seed, variation, 0, TimeSpan.Zero),
        null
    ).Play();

    private static double Wasted(IReadOnlyList<FrameRecord> frames) =>
        frames.Where(frame => !IsShown(frame)).Sum(Work) / frames.Sum(Work);

    private static double Work(FrameRecord frame) => (frame.Read + frame.Decode + frame.Effects).TotalSeconds;

    private static string Words(PassageDemand demand) =>
        $"({string.Join(", ", demand.Visits.Select(visit => $"{visit.Station} {visit.MeanService.TotalMilliseconds:0.0}"))}; GOP {demand.KeyInterval})";

    private static double Deviation(List<double> values) => Math.Sqrt(values.Average(value => Math.Pow(value - values.Average(), 2)));

    private static PassageDemand Demand(
        int interval,
        double read,
        double decode,
        double copy,
        double effects,
        bool shared = false,
        int frames = Minute
    ) => Demand(interval, read, [decode], copy, effects, shared, frames);

    /// <param name="decode">Milliseconds for each position of a GOP, or one for all.</param>
    private static PassageDemand Demand(
        int interval,
        double read,
        IEnumerable<double> decode,
        double copy,
        double effects,
        bool shared = false,
        int frames = Minute
    ) =>
        new(
        frames,
        [
            new Visit(Station.Drive, VisitKind.Read, [Samples.Ms(read)]),
            new Visit(Station.Processor, VisitKind.Decode, [.. decode.Select(Samples.Ms)]),
            new Visit(Station.Bus, VisitKind.Copy, [Samples.Ms(copy)]),
            new Visit(shared ? Station.Processor : Station.Graphics, VisitKind.Effects, [Samples.Ms(effects)]),
        ],
        interval, 0, 0, 0, 0, []);
}
