using CsCheck;
using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.StandIns;
using HardyBench.Core.Tests.Trials;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Core.Trials;

namespace HardyBench.Core.Tests.StandIns;

/// <summary>A machine whose service times are given: what it drops, how long it lags and where it breaks follows in closed form,
/// and whatever they are, every slot is counted once.</summary>
public sealed class ScriptedMachineTests
{
    private const int Frames = 1000;

    private static readonly FrameRate Rate = new(25);

    private static readonly FrameRate[] Rates = [new(24000, 1001), new(25), new(50), new(60000, 1001), new(120)];

    private static readonly Gen<PassageDemand> AnyPassage = Gen.Select(
        Gen.Int[1, 60], Gen.Int[1, 30], Gen.Double[0, 12].Array[1, 30], Gen.Double[0, 90].Array[1, 30], Gen.Double[0, 80],
        (frames, interval, read, decode, effects) => Demand(frames, interval, read, decode, effects));

    /// <summary>However long a machine would take: whoever stops it does not wait for that.</summary>
    [Fact]
    public void A_simulation_that_is_stopped_ends() => Assert.Throws<OperationCanceledException>(() =>
        new Simulation([Demand(Frames, 1, [0], [0.01], 0)], Rate, new PlaybackSettings(), ServiceSpread.None, null)
            .Play(stop: new CancellationToken(canceled: true)));

    /// <summary>Conservation of slots, over machines, plans and policies of any kind.</summary>
    [Fact]
    public void Whatever_the_plan_every_frame_has_one_result_and_those_shown_are_in_order() =>
        Gen.Select(
            AnyPassage.Array[1, 5],
            Gen.Int[0, 4].Select(i => Rates[i]),
            Gen.Bool,
            Gen.Int[1, 12],
            Gen.Int[0, 1000]).Sample((passages, rate, keepsTime, lookAhead, seed) =>
        {
            var policy = keepsTime ? PlayingPolicy.KeepTime : PlayingPolicy.KeepFrames;
            var spread = new ServiceSpread(seed, 0.4, 0.01, Samples.Ms(50));
            var simulation = new Simulation(passages, rate, new PlaybackSettings(Policy: policy, LookAhead: lookAhead), spread, null);
            var frames = simulation.Play();
            var counts = DropAccounting.Count(frames, rate, policy, simulation.StartLag);

            Assert.Equal(Enumerable.Range(0, passages.Sum(passage => passage.FrameCount)), frames.Select(frame => frame.Frame));
            Assert.Equal(frames.Count, counts.OnTime + counts.Late + counts.Overdue + counts.StartUpDrops + counts.SteadyDrops);
            Assert.All(frames, frame => Assert.Equal(frame.Shown is null, frame.Status == FrameStatus.Dropped));
            Assert.All(frames, frame => Assert.Equal(frame.Status == FrameStatus.Dropped, frame.Reason != DropReason.None));
            Assert.All(frames, frame => Assert.True(frame.Shown is null || frame.Ready <= frame.Shown));
            var shown = frames.Where(frame => frame.Shown is not null).ToList();
            Assert.All(shown.Zip(shown.Skip(1)), pair => Assert.True(pair.First.Shown <= pair.Second.Shown));
            if (keepsTime)
            {
                Assert.All(shown, frame => Assert.InRange(
                    frame.Shown!.Value - frame.SlotStart,
                    frame.Status == FrameStatus.Overdue ? rate.FrameDuration : TimeSpan.Zero,
                    rate.FrameDuration + (frame.Status == FrameStatus.Overdue ? Timing.MaxOverdue : TimeSpan.Zero)));
            }
            else
            {
                Assert.Equal(frames.Count, shown.Count);
            }
        }, iter: 400);

    [Theory]
    [InlineData(39.9, 0)]
    [InlineData(40, 0)]
    [InlineData(50, 0.2)]
    [InlineData(80, 0.5)]
    [InlineData(160, 0.75)]
    public void Keeping_time_it_drops_one_minus_slot_over_service(double service, double dropped)
    {
        var frames = new Simulation([Demand(Frames, 1, [0], [service], 0)], Rate, new PlaybackSettings(), ServiceSpread.None, null).Play();

        Assert.Equal(dropped, frames.Count(frame => frame.Status == FrameStatus.Dropped) / (double)Frames, 0.02);
    }

    [Theory]
    [InlineData(40, 0)]
    [InlineData(50, 10)]
    [InlineData(100, 60)]
    public void Keeping_frames_its_clock_slips_by_service_less_slot_a_frame(double service, double slip)
    {
        var simulation = new Simulation(
            [Demand(Frames, 1, [0], [service], 0)], Rate, new PlaybackSettings(Policy: PlayingPolicy.KeepFrames), ServiceSpread.None, null);
        var frames = simulation.Play();
        var counts = DropAccounting.Count(frames, Rate, PlayingPolicy.KeepFrames, simulation.StartLag);

        // What waits before the first frame is shown buys as many services of time once.
        var slots = Frames - new PlaybackSettings().LookAhead - PlaybackSettings.DecodeAhead - 1;
        Assert.InRange(counts.Slip.TotalMilliseconds, slip * slots, slip * Frames);
        Assert.DoesNotContain(frames, frame => frame.Status == FrameStatus.Dropped);
    }

    [Theory]
    [InlineData(3, 13)]
    [InlineData(9, 4)]
    [InlineData(60, 0)]
    [InlineData(1, 16)]
    public void A_ramp_of_layers_breaks_past_slot_over_service_a_layer(double perLayer, int holding)
    {
        var trial = Scripted.Trial(TrialKind.Ramp, 16);
        var done = new List<StepOutcome>();
        while (trial.Next(done, default) is { } step)
        {
            var layers = step.Role.Passage!.Value + 1;
            var simulation = new Simulation(
                [Demand(Scripted.Frames, 1, [0], [perLayer * layers], 0)], Rate, step.Plan.Settings, ServiceSpread.None, null);
            var run = Scripted.Run(step, _ => 1) with { Frames = simulation.Play() };
            done.Add(new StepOutcome(step.Role, run));
        }

        Assert.Equal(holding, RampSearch.Bounds([.. Enumerable.Range(0, 16)], RampSearch.Known(done)).FirstFails);
    }

    [Theory]
    [InlineData(1)]
    [InlineData(12)]
    [InlineData(50)]
    public void Jumping_about_in_a_GOP_of_G_takes_half_of_G_plus_one_frames_on_average_and_G_at_worst(int interval)
    {
        const double Read = 2, Decode = 8, Effects = 5;
        var plan = Scripted.Plan(1);
        var everywhere = new Gesture(GestureKind.Start, "play pressed", [.. Enumerable.Range(0, 100).Select(n => (long)n)], TimeSpan.Zero);

        var lags = Hand(plan, Demand(Scripted.Frames, interval, [Read], [Decode], Effects)).Carry([everywhere]);
        var nothing = Hand(plan, Demand(Scripted.Frames, interval, [0], [0], 0)).Carry([everywhere]);
        var (mean, worst, opening) = (lags.Average(Ms), lags.Max(Ms), nothing.Max(Ms));

        // The last GOP of a hundred frames may be cut short.
        var positions = Enumerable.Range(0, 100).Select(n => n % interval + 1).ToList();
        Assert.Equal(opening + positions.Average() * (Read + Decode) + Effects, mean, 6);
        Assert.Equal(opening + interval * (Read + Decode) + Effects, worst, 6);
        if (100 % interval == 0)
        {
            Assert.Equal((interval + 1) / 2.0, positions.Average(), 9);
        }

        static double Ms(LagReading lag) => lag.Lag!.Value.TotalMilliseconds;
    }

    [Theory]
    [InlineData(5, 0)]
    [InlineData(33, 0)]
    [InlineData(66, 0.5)]
    [InlineData(132, 0.75)]
    public void A_drag_passes_over_one_minus_pace_over_service(double service, double passedOver)
    {
        var plan = Scripted.Plan(1);
        var drag = new Gesture(GestureKind.Sweep, "dragged", [.. Enumerable.Range(0, 100).Select(n => (long)n)], Samples.Ms(33));

        var lags = Hand(plan, Demand(Scripted.Frames, 1, [0], [service], 0)).Carry([drag]);

        Assert.Equal(passedOver, lags.Count(lag => lag.Lag is null) / 100.0, 0.02);
        Assert.All(
            lags.Where(lag => lag.Lag is not null),
            lag => Assert.InRange(lag.Lag!.Value.TotalMilliseconds, service - 0.001, 2 * service)
        );
    }

    [Theory]
    [InlineData(48, PreviewScale.Half)]
    [InlineData(150, PreviewScale.Half)]
    [InlineData(200, PreviewScale.Quarter)]
    [InlineData(700, PreviewScale.Eighth)]
    public void The_automatic_scale_steps_down_until_a_scale_holds(double full, PreviewScale settled)
    {
        // Effects alone, their service falling with the pixels: 150 ms at full scale are 37.5 at half, which a slot of 40 ms has room for.
        var smaller = Enum.GetValues<PreviewScale>().Where(scale => scale != PreviewScale.Full).ToDictionary(
            scale => scale,
            scale => (IReadOnlyList<PassageDemand>)[Demand(Frames, 1, [0], [1], full / ((int)scale * (int)scale))]);
        var frames = new Simulation(
            [Demand(Frames, 1, [0], [1], full)],
            Rate,
            new PlaybackSettings(AutomaticScale: true),
            ServiceSpread.None,
            null,
            smaller: smaller
        ).Play();

        Assert.Equal(settled, frames[^1].Scale);
        Assert.DoesNotContain(frames.TakeLast(Frames / 2), frame => frame.Status == FrameStatus.Dropped);
        Assert.Equal(PreviewScale.Full, frames[0].Scale);
    }

    private static GestureModel Hand(PlaybackPlan plan, PassageDemand demand) => new(plan, [demand], ServiceSpread.None);

    private static PassageDemand Demand(int frames, int interval, double[] read, double[] decode, double effects) => new(
        frames,
        [
            new Visit(Station.Drive, VisitKind.Read, [.. read.Select(Samples.Ms)]),
            new Visit(Station.Processor, VisitKind.Decode, [.. decode.Select(Samples.Ms)]),
            new Visit(Station.Graphics, VisitKind.Effects, [Samples.Ms(effects)]),
        ],
        interval, 0, 0, 0, 0, []);
}
