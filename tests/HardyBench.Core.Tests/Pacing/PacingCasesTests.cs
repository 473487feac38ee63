using System.Text.Json;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;

namespace HardyBench.Core.Tests.Pacing;

/// <summary>The cases of tests/pacing-cases, worked out by hand; any other implementation can be tested against the same files.</summary>
public sealed class PacingCasesTests
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        Converters = { new System.Text.Json.Serialization.JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
        UnmappedMemberHandling = System.Text.Json.Serialization.JsonUnmappedMemberHandling.Disallow,
    };

    public static TheoryData<SlotCase> Slots => Read<SlotCase>("slots");

    public static TheoryData<PresenterCase> Presenting => Read<PresenterCase>("presenter");

    public static TheoryData<AimCase> Aiming => Read<AimCase>("aim");

    [Theory]
    [MemberData(nameof(Slots))]
    public void A_slot_begins_when_it_should(SlotCase one)
    {
        var clock = new SlotClock(RateOf(one.Rate), Ms(one.FirstShown), Ms(one.Slip));

        Assert.Equal(
            one.Starts.Select(start => (start.Key, Ms(start.Value))), one.Starts.Select(start => (start.Key, clock.StartOf(start.Key))));
    }

    [Theory]
    [MemberData(nameof(Presenting))]
    public void Slots_are_settled_as_they_should_be(PresenterCase one)
    {
        var (frames, presenter, now) = (new Frames(one), new Presenter(RateOf(one.Rate), one.Policy, one.Cuts), TimeSpan.Zero);
        var settled = new List<SettledSlot>();
        while (presenter.Frame < one.Cuts[^1])
        {
            frames.Now = now;
            var decision = presenter.Decide(now, frames);
            if (decision.Act != PresenterAct.Wait)
            {
                settled.AddRange(presenter.Settle(decision, now, frames));
                continue;
            }

            var next = frames.NextAfter(now);
            Assert.True(next is not null || decision.Until < TimeSpan.MaxValue, $"{one.About}: it waits for ever.");
            now = next is { } comes && comes < decision.Until && !decision.OnlyTime ? comes : decision.Until;
        }

        settled.AddRange(presenter.End(now, frames));
        Assert.Equal(
            one.Settled.Select(slot => (
                slot[0].GetInt64(), Ms(slot[1].GetInt64()),
                slot[2].ValueKind == JsonValueKind.Null ? (TimeSpan?)null : Ms(slot[2].GetInt64()),
                slot[3].Deserialize<FrameStatus>(Options), slot[4].Deserialize<DropReason>(Options))),
            settled.Select(slot => (slot.Frame, slot.SlotStart, slot.Shown, slot.Status, slot.Reason)));
    }

    [Theory]
    [MemberData(nameof(Aiming))]
    public void The_frame_that_is_begun_is_the_one_it_should_be(AimCase one)
    {
        var aim = new Aim(RateOf(one.Rate), one.First, one.End, new Gops(one.Gop, one.ReferencedEvery));
        foreach (var (work, mean) in one.Learned)
        {
            var durations = work switch
            {
                "decoding" => aim.Decoding,
                "decodingEach" => aim.DecodingEach,
                "startingAfresh" => aim.StartingAfresh,
                "advancing" => aim.Advancing,
                "effects" => aim.Effects,
                _ => work == "effectsBegun" ? aim.EffectsBegun : throw new InvalidDataException(work),
            };
            durations.Add(Ms(mean));
        }

        aim.ContinueFrom(one.Last);
        var clock = one.Clock is { } known ? new SlotClock(RateOf(one.Rate), Ms(known.FirstShown), Ms(known.Slip)) : (SlotClock?)null;
        foreach (var step in one.Steps)
        {
            var underWay = step.UnderWay is { } work
                ? new WorkInProgress(
                    work.Undecoded, Ms(work.LastDecoded), work.BeforeEffects, work.EffectsSince is { } since ? Ms(since) : null)
                : default;
            var choice = aim.Next(Ms(step.Now), clock, underWay);
            Assert.Equal((step.Choice.Frame, step.Choice.LeavesOut, step.Choice.GivesUp), (choice.Frame, choice.LeavesOut, choice.GivesUp));
        }
    }

    private static TimeSpan Ms(long milliseconds) => TimeSpan.FromMilliseconds(milliseconds);

    private static FrameRate RateOf(int[] rate) => new(rate[0], rate[1]);

    private static TheoryData<T> Read<T>(string name)
    {
        var file = Path.Combine(Repository.Root, "tests", "pacing-cases", $"{name}.json");
        return [.. JsonSerializer.Deserialize<T[]>(File.ReadAllText(file), Options)!];
    }

    public sealed record SlotCase(string About, int[] Rate, long FirstShown, long Slip, Dictionary<long, long> Starts)
    {
        public override string ToString() => About;
    }

    public sealed record Lost(long At, DropReason Reason);

    /// <param name="Settled">Frame, slot start, shown, status, reason.</param>
    public sealed record PresenterCase(
        string About, PlayingPolicy Policy, int[] Rate, long[] Cuts, Dictionary<long, long> Ready, Dictionary<long, Lost>? Lost,
        JsonElement[][] Settled)
    {
        public override string ToString() => About;
    }

    public sealed record Clock(long FirstShown, long Slip);

    public sealed record UnderWay(int Undecoded, long LastDecoded, int BeforeEffects, long? EffectsSince);

    public sealed record Chosen(long Frame, bool LeavesOut, bool GivesUp);

    public sealed record Step(long Now, Chosen Choice, UnderWay? UnderWay = null);

    public sealed record AimCase(
        string About, int[] Rate, long First, long End, int Gop, Dictionary<string, long> Learned, Clock? Clock, long Last, Step[] Steps,
        int ReferencedEvery = 1)
    {
        public override string ToString() => About;
    }

    private sealed class Frames(PresenterCase one) : ITreatedFrames
    {
        public TimeSpan Now { get; set; }

        public TimeSpan? ReadyAt(long frame) => one.Ready.TryGetValue(frame, out var at) && Ms(at) <= Now ? Ms(at) : null;

        public DropReason LostOf(long frame) =>
            one.Lost?.GetValueOrDefault(frame) is { } lost && Ms(lost.At) <= Now ? lost.Reason : DropReason.None;

        public TimeSpan? NextAfter(TimeSpan now) => one.Ready.Values.Concat(one.Lost?.Values.Select(lost => lost.At) ?? [])
            .Select(Ms).Where(at => at > now).Order().Select(at => (TimeSpan?)at).FirstOrDefault();
    }

    private sealed class Gops(int gop, int referencedEvery) : IReferences
    {
        public bool StandAlone => gop == 1;

        public long FirstFrom(long frame) => (frame + gop - 1) / gop * gop;

        public long ReferencedFrom(long frame)
        {
            while (frame % gop % referencedEvery != 0)
            {
                frame++;
            }

            return frame;
        }
    }
}
