using System.Collections.Concurrent;
using CsCheck;
using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Player.Decoding;
using HardyBench.Player.Native;
using HardyBench.Player.Playing;

namespace HardyBench.Player.Tests.Playing;

/// <summary>The presenting thread as it really runs, with a decoder and a treatment whose every delay and loss is given.</summary>
public sealed class PresentingTests
{
    private const int Slots = 40;

    /// <summary>What is done before a frame: a wait in milliseconds, or −1 to give the frame up.</summary>
    private static readonly Gen<int[]> Scripts = Gen.Frequency((8, Gen.Int[0, 3]), (2, Gen.Int[5, 25]), (1, Gen.Const(-1))).Array[Slots];

    [Theory]
    [InlineData(PlayingPolicy.KeepTime)]
    [InlineData(PlayingPolicy.KeepFrames)]
    public async Task Whatever_comes_and_when_every_slot_is_settled_once_and_pictures_are_shown_in_order_and_once(PlayingPolicy policy)
    {
        var clips = await TestData.ClipsAsync();
        using var decoder = new ClipDecoder(clips.PathOf(clips.Clips["hd-avc-25"]), 1);
        var plan = await Plans.PlanAsync(
            new Timeline("t", "T", Raster.Hd, new FrameRate(120), [new Passage("asked", Slots, [new Layer("hd-avc-25", [])], [])]),
            new PlaybackSettings(Policy: policy));

        Scripts.Sample(
            script =>
            {
                var (run, screen) = Play(plan, script, decoder);

                Assert.Equal(Enumerable.Range(0, Slots), run.Select(frame => frame.Frame));
                Assert.Equal(run.Where(frame => frame.Shown is not null).Select(frame => (long)frame.Frame), screen.Frames);
                Assert.All(screen.Pictures.Zip(screen.Published), pair => Assert.True(pair.First.AsSpan().SequenceEqual(pair.Second)));
                Assert.All(run.Where(frame => script[frame.Frame] < 0), frame => Assert.Equal(FrameStatus.Dropped, frame.Status));
                var counts = DropAccounting.Count(
                    run,
                    plan.Timeline.Rate,
                    policy,
                    run.Select(frame => frame.Shown).FirstOrDefault(shown => shown is not null)
                );
                Assert.Equal(Slots, counts.OnTime + counts.Late + counts.Overdue + counts.StartUpDrops + counts.SteadyDrops);
                if (policy == PlayingPolicy.KeepFrames)
                {
                    Assert.All(run.Where(frame => script[frame.Frame] >= 0), frame => Assert.NotNull(frame.Shown));
                    Assert.DoesNotContain(run, frame => frame.Status == FrameStatus.Overdue);
                }
            },
            iter: 12,
            threads: 1);
    }

    private static (IReadOnlyList<FrameRecord> Run, Screen Screen) Play(PlaybackPlan plan, int[] script, ClipDecoder decoder)
    {
        var (clock, slots, journal, screen) = (new RunClock(), new TreatedSlots(plan.Settings.LookAhead), new RunJournal(), new Screen());
        var treating = new Thread(() =>
        {
            for (var frame = 0; frame < Slots && slots.WaitForRoom(); frame++)
            {
                if (script[frame] < 0)
                {
                    slots.Lose(frame, frame + 1, DropReason.DecodeSkipped);
                    continue;
                }

                Thread.Sleep(script[frame]);
                var picture = decoder.Next().Picture;
                screen.Expect(frame, picture.CopyPlanes());
                slots.Publish(frame, new TreatedFrame(picture, clock.Now, default, default, default, PreviewScale.Full));
            }
        });
        treating.Start();
        new Presenting(plan, clock, slots, screen, journal).Present(CancellationToken.None);
        slots.Close();
        treating.Join();
        return (journal.TakeNews().Frames, screen);
    }

    /// <summary>Keeps what it is shown beside what was made for that frame, whose strips and scenes all differ.</summary>
    private sealed class Screen : IScreen
    {
        private readonly ConcurrentDictionary<long, byte[]> made = new();

        public List<long> Frames { get; } = [];

        public List<byte[]> Pictures { get; } = [];

        public IEnumerable<byte[]> Published => Frames.Select(frame => made[frame]);

        public void Expect(long frame, byte[] picture) => made[frame] = picture;

        public void Show(long frame, FrameHandle picture)
        {
            Frames.Add(frame);
            Pictures.Add(picture.CopyPlanes());
        }
    }
}
