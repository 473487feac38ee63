using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Wording;

namespace HardyBench.Core.Tests.Advice;

/// <summary>What stored footage takes: a megabit a second for an hour is 450 MB.</summary>
public sealed class StoredFootageTests
{
    private static readonly Brief Kept = new("b", "B", ["light", "heavy"]) { StoredHours = 10 };

    [Fact]
    public void Nobody_said_how_much_so_nothing_is_said() =>
        Assert.Null(StoredFootage.Of(Kept with { StoredHours = null }, Plans));

    /// <summary>Both clips are as long, so footage comes at 60 Mb/s, and each clip counts once however often it is played.</summary>
    [Fact]
    public void Footage_is_kept_in_the_shares_that_the_timelines_play() =>
        Assert.Equal(10 * 60 * 0.45e9, StoredFootage.Of(Kept, Plans)!.Bytes, 1e3);

    /// <summary>Three quarters at 20 Mb/s and one at 100 come to 40.</summary>
    [Fact]
    public void Hours_a_week_say_in_which_shares_it_is_kept() => Assert.Equal(
        10 * 40 * 0.45e9,
        StoredFootage.Of(Kept with { HoursAWeek = new Dictionary<string, double> { ["light"] = 6, ["heavy"] = 2 } }, Plans)!.Bytes, 1e3);

    /// <summary>A week that brings nothing says nothing of what is stored.</summary>
    [Fact]
    public void Hours_of_none_are_no_shares() => Assert.Equal(
        StoredFootage.Of(Kept, Plans), StoredFootage.Of(Kept with { HoursAWeek = new Dictionary<string, double> { ["light"] = 0 } }, Plans));

    [Fact]
    public void Copies_of_all_that_is_kept_take_as_many_times_more_as_there_is_more_footage()
    {
        var remedy = new Remedy([RemedyKind.HalfProxies], 1, 1, 1, null, Bytes: 2e9)
        {
            Made = [(TimeSpan.FromHours(1), TimeSpan.FromMinutes(30))],
        };

        Assert.Equal(40e9, remedy.StoredBytes(Kept)!.Value, 1);
        Assert.Null(remedy.StoredBytes(Kept with { StoredHours = null }));
        Assert.Null((remedy with { Kinds = [RemedyKind.PreRenders] }).StoredBytes(Kept));
        Assert.StartsWith("2.0 GB of disk (40.0 GB for all 10 h of stored footage)", AnswerWords.Cost(remedy, Kept), StringComparison.Ordinal);
    }

    private static IReadOnlyList<PlaybackPlan> Plans { get; } = [PlanOf("light", 20), PlanOf("heavy", 100)];

    private static PlaybackPlan PlanOf(string id, double megabits)
    {
        var clip = new Clip(id, id, Samples.HdAvc with { DataRate = DataRate.FromMegabits(megabits) }, 250, null);
        var passage = new Passage("asked", 100, [new Layer(id, [])], []);
        return new PlaybackPlan(
            new Timeline(id, id, Raster.Hd, Samples.Rate, [passage, passage]), new Dictionary<string, Clip> { [id] = clip },
            Samples.Machine(), new PlaybackSettings());
    }
}
