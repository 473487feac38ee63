using System.Text.Json;
using System.Text.Json.Nodes;
using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Formats.Json;
using HardyBench.Formats.Machines;

namespace HardyBench.Formats.Tests.Machines;

/// <summary>Every member of a machine is changed, one at a time. Digest, comparison and table have to react, or the member is listed here
/// as exempt, with the reason. A new member that one of them forgets fails by its name.</summary>
public sealed class MachineMembersTests
{
    private const string Measured = "told by when it was measured";

    private static readonly FormatCapability Row = new(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Uhd);

    private static readonly Machine Full = new(
        "m", "Machine", MachineKind.StandIn, "summary", new Processor("p", 8, 16, 1.2, 3, 4, 0.5, 256), [new Graphics("g", 5000, 250, 8, 15.75)],
        [new MediaEngine("e", 1000, [Row]) { Encodes = [Row], EncodedMegapixelsPerSecond = 500 }], new Memory(32, 4, 2, 5600, 2),
        [
            new Drive([DriveRole.Media], "NVMe", 3000, 2000, 0.1),
            new Drive([DriveRole.System], "SATA", 500, 400, 0.2),
        ],
        new Cooling(false, 0.4, 200, 24, 95, 30, 120, 100, 40), 900)
    {
        PricedOn = new DateOnly(2026, 11, 1), Form = MachineForm.Laptop, OnBattery = false, NoiseDecibels = 30,
        Places = new Places("s", 100, "DDR5", 4, 128, 1, 2, 300, 600, 200), OperatingSystem = "system", DriverDate = new DateOnly(2026, 10, 1),
        Costs = new MachineCosts(
            [new CodecCost(Codec.Avc, false, 2e-9, 1e-9, 1e-10, 1e-10, 0.2, 1e9, 1e9) { BitsSerialPart = 0.3 }],
            [new WorkTime("blur", 2, 3)], 0.1, DateTimeOffset.UnixEpoch) { AllBusy = 0.9 },
    };

    /// <summary>Start of a member's path → why it affects no result.</summary>
    private static readonly Dictionary<string, string> NoResult = new()
    {
        ["id"] = "a name", ["name"] = "a name", ["summary"] = "a note",
        ["price"] = "money", ["pricedOn"] = "money", ["form"] = "what people choose by", ["noiseDecibels"] = "what people choose by",
        ["places"] = "what parts go by", ["operatingSystem"] = "a note", ["driverDate"] = "a note",
    };

    /// <summary>Start of a member's path → why no comparison names it.</summary>
    private static readonly Dictionary<string, string> NotCompared = new()
    {
        ["id"] = "a name", ["name"] = "a name", ["summary"] = "a note",
        ["price"] = "money", ["pricedOn"] = "money", ["form"] = "what people choose by", ["noiseDecibels"] = "what people choose by",
        ["places"] = "what parts go by", ["processor.threads"] = "no simulation uses it; usable cores are compared instead",
        ["processor.clockGigahertz"] = "no simulation uses it; the measured clock is among the loads",
        ["processor.vectorBits"] = "no simulation uses it",
        ["cooling.batteryWatts"] = "compared as the power limit while it runs from the battery",
        ["costs.decoding"] = Measured, ["costs.treating"] = Measured, ["costs.band"] = Measured, ["costs.allBusy"] = Measured,
    };

    /// <summary>Start of a member's path → why the table has no column for it.</summary>
    private static readonly Dictionary<string, string> NotInTable = new()
    {
        ["costs"] = "measured, hundreds of figures; in the JSON file",
    };

    /// <summary>All but the kind: whether it is this machine is a matter of where the program runs.</summary>
    public static TheoryData<string> Members => [.. Leaves(Node(Full), string.Empty).Select(leaf => leaf.Path).Where(path => path != "kind")];

    [Theory]
    [MemberData(nameof(Members))]
    public void A_changed_member_changes_digest_comparison_and_table(string path)
    {
        var changed = Changed(path);

        Assert.Equal(!IsIn(NoResult, path), MachineDigest.Of(Full) != MachineDigest.Of(changed));
        Assert.Equal(!IsIn(NotCompared, path), LikeForLike.Differences(Full, changed).Count > 0);
        Assert.Equal(!IsIn(NotInTable, path), MachineCsv.Write([Full]) != MachineCsv.Write([changed]));
    }

    public static TheoryData<string> Numbers => [.. Leaves(Node(Full), string.Empty)
        .Where(leaf => leaf.Value.GetValueKind() == JsonValueKind.Number).Select(leaf => leaf.Path)];

    /// <summary>Every number that is stated has its row in the table of figures, which says the same.</summary>
    [Theory]
    [MemberData(nameof(Numbers))]
    public void A_number_is_among_the_figures(string path)
    {
        var figure = MachineFigures.All.SingleOrDefault(figure => figure.Path == path.Replace("[0]", null, StringComparison.Ordinal).Replace("[1]", null, StringComparison.Ordinal));
        if (IsIn(NotInTable, path) || path.Contains("maxRaster", StringComparison.Ordinal) || path.Contains("maxBitDepth", StringComparison.Ordinal))
        {
            Assert.Null(figure);
            return;
        }

        var value = Leaves(Node(Full), string.Empty).Single(leaf => leaf.Path == path).Value.GetValue<double>();
        Assert.Contains(figure!.Read(Full), one => one.Value == value);
    }

    /// <summary>Every number of a machine has limits.</summary>
    [Theory]
    [MemberData(nameof(Numbers))]
    public void A_number_far_outside_what_there_is_is_refused(string path)
    {
        Assert.Empty(MachineLimits.Problems(Full));
        Assert.Contains(new[] { 1_000_000_000, -1 }, number =>
        {
            var whole = Node(Full);
            Leaves(whole, string.Empty).Single(leaf => leaf.Path == path).Value.ReplaceWith(number);
            return MachineLimits.Problems(whole.Deserialize<Machine>(BenchJson.Options)!).Count > 0;
        });
    }

    [Fact]
    public void Every_exemption_is_of_a_member_that_there_is() => Assert.All(
        NoResult.Keys.Concat(NotCompared.Keys).Concat(NotInTable.Keys), path => Assert.Contains(Members, one => StartsWith(one, path)));

    /// <summary>Files of earlier versions repeat the graphics units that compose pictures.</summary>
    [Fact]
    public void What_earlier_versions_wrote_besides_is_not_called_unknown()
    {
        var file = JsonNode.Parse(MachineJson.Write([Full]))!;
        file["machines"]![0]!["composing"] = new JsonArray();

        Assert.Empty(MachineJson.Read(file.ToJsonString()).Problems);
    }

    /// <summary>What the kernel reports of memory and what is in use just now differ from start to start of one machine.</summary>
    [Fact]
    public void This_machine_is_the_same_with_other_memory_in_use_and_another_one_with_more_memory()
    {
        var machine = Full with { Kind = MachineKind.Real, Memory = new Memory(16.4, 2.1, null, null) };
        var later = machine with { Memory = new Memory(16.3, 5.8, null, null) };
        var upgraded = machine with { Memory = new Memory(33.1, 2.1, null, null) };

        Assert.Equal(MachineDigest.Of(machine), MachineDigest.Of(later));
        Assert.Empty(LikeForLike.Differences(machine, later));
        Assert.NotEqual(MachineDigest.Of(machine), MachineDigest.Of(upgraded));
        var difference = Assert.Single(LikeForLike.Differences(machine, upgraded));
        Assert.Equal((Condition.Figure, "memory.gigabytes", "16 GB", "33 GB"), (difference.What, difference.Of, difference.Base, difference.Other));
    }

    private static bool IsIn(Dictionary<string, string> exempt, string path) => exempt.Keys.Any(start => StartsWith(path, start));

    private static bool StartsWith(string path, string start) =>
        path == start || path.StartsWith($"{start}.", StringComparison.Ordinal) || path.StartsWith($"{start}[", StringComparison.Ordinal);

    private static JsonNode Node(Machine machine) => JsonSerializer.SerializeToNode(machine, BenchJson.Options)!;

    private static IEnumerable<(string Path, JsonValue Value)> Leaves(JsonNode? node, string path) => node switch
    {
        JsonObject members => members.SelectMany(member => Leaves(member.Value, path.Length == 0 ? member.Key : $"{path}.{member.Key}")),
        JsonArray list => list.SelectMany((one, place) => Leaves(one, $"{path}[{place}]")),
        JsonValue value => [(path, value)],
        _ => throw new InvalidOperationException($"{path} is null in the example; every member has to be set."),
    };

    /// <summary>The machine with another value in one place: the first of some that can be read.</summary>
    private static Machine Changed(string path)
    {
        foreach (var other in Others(Leaves(Node(Full), string.Empty).Single(leaf => leaf.Path == path).Value))
        {
            var whole = Node(Full);
            Leaves(whole, string.Empty).Single(leaf => leaf.Path == path).Value.ReplaceWith(other);
            try
            {
                if (whole.Deserialize<Machine>(BenchJson.Options) is { } changed && !JsonNode.DeepEquals(Node(changed), Node(Full)))
                {
                    return changed;
                }
            }
            catch (JsonException)
            {
                // Not a value of this member.
            }
        }

        throw new InvalidOperationException($"No other value of {path} is known to this test.");
    }

    private static IEnumerable<JsonNode> Others(JsonValue value) => value.GetValueKind() switch
    {
        JsonValueKind.True => [false],
        JsonValueKind.False => [true],
        JsonValueKind.Number => [value.GetValue<double>() + 1, value.GetValue<double>() * 2],
        _ =>
        [
            "hevc", "standIn", "this", "tower", "renders", "1920x1080", "half", "2026-01-01", "2026-01-01T00:00:00+00:00", $"{value}x",
        ],
    };
}
