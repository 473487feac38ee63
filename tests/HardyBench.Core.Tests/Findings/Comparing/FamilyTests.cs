using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Programs;

namespace HardyBench.Core.Tests.Findings.Comparing;

public sealed class FamilyTests
{
    private static readonly Machine Heron = Samples.Machine("heron");

    [Fact]
    public void Machines_that_differ_in_one_part_with_an_order_are_a_family_by_rising_value()
    {
        var family = Assert.Single(
            Family.Among([Of(1, Memory(32)), Of(2, Memory(8)), Of(3, Samples.Machine("other", cores: 8)), Of(4, Memory(16))])
        );

        Assert.Equal((Condition.Figure, "memory.gigabytes"), (family.What, family.Of));
        Assert.Equal([2, 4, 1], family.Members.Select(member => member.Run));
        Assert.Equal(["8 GB", "16 GB", "32 GB"], family.Members.Select(member => member.Text));
    }

    [Fact]
    public void A_second_difference_parts_them()
    {
        Assert.Empty(
            Family.Among([Of(1, Memory(8)), Of(2, Memory(16)), Of(3, Memory(32) with { OnBattery = true, OperatingSystem = "another" })])
        );
        Assert.Empty(Family.Among([Of(1, Memory(8)), Of(2, Memory(16)), Of(3, Memory(32), scale: PreviewScale.Half)]));
        Assert.Empty(Family.Among([Of(1, Memory(8)), Of(2, Memory(16)), new FamilyCandidate(3, Header(Memory(32)), "another timeline")]));
    }

    [Fact]
    public void One_machine_as_several_editing_programs_is_a_family_whatever_those_decide()
    {
        var runs = new[] { Of(1, Heron), As(2, Heron, "A"), As(3, Heron, "B"), As(4, Heron, "B"), As(5, Samples.Machine("x", cores: 8), "C") };
        var family = Assert.Single(Family.OfPrograms(runs));

        Assert.Equal((Condition.Program, (string?)null), (family.What, family.Of));
        Assert.Equal(["Hardy Bench player", "A", "B"], family.Members.Select(member => member.Text));
        Assert.Empty(Family.OfPrograms([Of(1, Heron), As(2, Heron, "A"), As(3, Heron, "B", PlayingPolicy.Unpaced)]));

        static FamilyCandidate As(long run, Machine machine, string name, PlayingPolicy policy = PlayingPolicy.KeepTime)
        {
            var of = Of(run, machine);
            var program = new EditingProgram(name.ToLowerInvariant(), name) { LookAhead = 9, WhenLate = PlayingPolicy.KeepFrames };
            var settings = (of.Header.Settings with { Program = program, Policy = policy }).Effective();
            return of with { Header = of.Header with { Settings = settings } };
        }
    }

    [Fact]
    public void Two_are_no_family_and_the_same_value_twice_counts_once()
    {
        Assert.Empty(Family.Among([]));
        Assert.Empty(Family.Among([Of(1, Memory(8)), Of(2, Memory(16)), Of(3, Memory(16))]));
    }

    /// <summary>Whatever is looked at pair by pair is what is found by sums.</summary>
    [Fact]
    public void Every_pair_within_a_family_differs_in_just_that()
    {
        var random = new Random(7);
        var runs = Enumerable.Range(1, 60).Select(n => Of(n, Memory(8 << random.Next(4)) with
        {
            Processor = Heron.Processor with { Cores = 4 << random.Next(3) }, OperatingSystem = random.Next(2) == 0 ? "one" : "two",
        })).ToList();

        var families = Family.Among(runs);

        Assert.NotEmpty(families);
        foreach (var family in families)
        {
            var members = family.Members.Select(member => runs.Single(run => run.Run == member.Run)).ToList();
            Assert.All(members.Skip(1), other => Assert.Equal(
                family.What,
                Assert.Single(LikeForLike.Differences(members[0].Header, members[0].Timeline, other.Header, other.Timeline)).What
            )
            );
        }
    }

    private static Machine Memory(double gigabytes) =>
        Heron with
        {
            Id = $"heron-{gigabytes}",
            Memory = Heron.Memory with { Gigabytes = gigabytes },
        };

    private static FamilyCandidate Of(long run, Machine machine, PreviewScale scale = PreviewScale.Full) =>
        new(run, Header(machine, scale), "timeline");

    private static RunHeader Header(Machine machine, PreviewScale scale = PreviewScale.Full) => new(
        Samples.Plan(machine, Samples.HdAvc).Timeline,
        machine,
        new PlaybackSettings(scale),
        new Conditions("p", null, [0, 1, 2, 3], null, null, 1),
        new Dictionary<string, string>(), default);
}
