using System.Text;
using System.Text.Json;
using CsCheck;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback.Subjects;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.Timelines;
using HardyBench.Formats.PlayerProtocol;
using HardyBench.Formats.Timelines;

namespace HardyBench.Formats.Tests.PlayerProtocol;

/// <summary>What is said to a player process and by it comes through as it was.</summary>
public sealed class PlayerTalkTests
{
    private static readonly Machine Machine = new(
        "m", "M", MachineKind.Real, "for tests", new Processor("p", 2, 2, null, 3), [], [], new Memory(8, 1, null, null), [], null, null);

    [Fact]
    public void Any_plan_comes_through() => Interchange.Timelines.Any.Sample(timeline =>
    {
        var plan = new PlaybackPlan(
            timeline,
            new Dictionary<string, Clip>(),
            Machine,
            new PlaybackSettings(PreviewScale.Quarter, LookAhead: 9, Threads: 3)
        )
        {
            Subject = new ByHand([new Gesture(GestureKind.Sweep, "slow", [3, 1, 2], TimeSpan.FromMilliseconds(40))]),
            Rendered = new Dictionary<int, Passage> { [0] = timeline.Passages[0] },
            Occasion = 0,
        };

        var back = Through(
            new PlayerRequest
            {
                Play = new StartPlay(
                    plan,
                    new Dictionary<string, ClipPlace> { ["a"] = new("/a", null), ["b"] = new(null, "not made") },
                    new EffectPlaces("l", "f"),
                    null,
                    0
                ),
            },
            PlayerTalk.Asks
        ).Play!;

        Assert.Equal(TimelineJson.Write(timeline), TimelineJson.Write(back.Plan.Timeline));
        Assert.Equal(
            (plan.Settings, plan.Occasion, plan.Machine.Processor),
            (back.Plan.Settings, back.Plan.Occasion, back.Plan.Machine.Processor)
        );
        Assert.Equal([3, 1, 2], back.Plan.Moves![0].Frames);
        Assert.Equal(timeline.Passages[0].Question, back.Plan.Rendered![0].Question);
        Assert.Equal((new ClipPlace("/a"), new ClipPlace(null, "not made"), 0), (back.Clips["a"], back.Clips["b"], back.PagesHere));
    }, iter: 50);

    [Fact]
    public void Figures_come_through_to_the_last_digit()
    {
        var frame = new FrameRecord(
            7,
            new TimeSpan(123_456_789),
            null,
            new TimeSpan(1),
            FrameStatus.Late,
            DropReason.PresenterLate,
            new TimeSpan(3),
            default,
            new TimeSpan(9),
            default,
            4,
            PreviewScale.Eighth
        );
        LoadReading[] loads =
        [
            new(new TimeSpan(5), LoadKind.Core, 3, 0.1f),
            new(default, LoadKind.Temperature, -1, float.NaN),
            new(default, LoadKind.Clock, 0, float.PositiveInfinity),
        ];

        var back = Through(
            new PlayerEvent
            {
                Progressed = new RunProgress([frame], loads, [new PassageFailure(2, "words\nover two lines", true)])
                {
                    Lags = [new LagReading(GestureKind.Start, "x", 4, new TimeSpan(8), null)],
                },
            },
            PlayerTalk.Tells
        ).Progressed!;

        Assert.Equal(frame, Assert.Single(back.Frames));
        Assert.Equal(loads, back.Loads);
        Assert.Equal(new PassageFailure(2, "words\nover two lines", true), Assert.Single(back.Failures));
        Assert.Equal(new LagReading(GestureKind.Start, "x", 4, new TimeSpan(8), null), Assert.Single(back.Lags));
        Assert.Equal(RunEnding.Playing, Through(new PlayerEvent { Ended = RunEnding.Playing }, PlayerTalk.Tells).Ended);
    }

    [Theory]
    [InlineData("")]
    [InlineData("null")]
    [InlineData("[]")]
    [InlineData("{\"play\":1}")]
    [InlineData("{\"play\":{\"plan\":null,\"clips\":null,\"effects\":null}}")]
    public void What_is_no_message_is_an_error(string line) =>
        Assert.Throws<JsonException>(() => PlayerTalk.Read(Encoding.UTF8.GetBytes(line), PlayerTalk.Asks));

    [Fact]
    public async Task Lines_are_told_apart_however_they_come()
    {
        var text = "one\n\n" + new string('x', 100_000) + "\nlast, never ended";
        foreach (var piece in new[] { 1, 7, 4096, 1 << 20 })
        {
            var lines = new BoundedLines(new Pieces(Encoding.UTF8.GetBytes(text), piece));
            var read = new List<string>();
            while (await lines.ReadAsync(CancellationToken.None) is { } line)
            {
                read.Add(Encoding.UTF8.GetString(line.Span));
            }

            Assert.Equal(["one", "", new string('x', 100_000)], read);
        }
    }

    [Fact]
    public async Task A_line_that_never_ends_is_broken_off()
    {
        var lines = new BoundedLines(new Pieces(new byte[5000], 512), longest: 2000);

        await Assert.ThrowsAsync<InvalidDataException>(async () => await lines.ReadAsync(CancellationToken.None));
    }

    private static T Through<T>(T message, System.Text.Json.Serialization.Metadata.JsonTypeInfo<T> type)
        where T : class
    {
        using var stream = new MemoryStream();
        PlayerTalk.Write(stream, message, type);
        var bytes = stream.ToArray();
        Assert.Equal(bytes.Length - 1, Array.IndexOf(bytes, (byte)'\n'));
        return PlayerTalk.Read(bytes.AsSpan(..^1), type);
    }

    /// <summary>Gives what it holds in pieces.</summary>
    private sealed class Pieces(byte[] all, int piece) : MemoryStream(all)
    {
        public override ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default) =>
            base.ReadAsync(buffer[..Math.Min(piece, buffer.Length)], cancellationToken);
    }
}
