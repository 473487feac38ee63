using System.Text.RegularExpressions;
using System.Xml.Linq;

namespace HardyBench.Core.Tests.Rooms;

/// <summary>Who may know whom, read from the sources: a room is a project's folder. What a new reference here would break is drawn in the
/// README.</summary>
public sealed partial class RoomsTests
{
    private static readonly string Sources = Path.Combine(Repository.Root, "src");

    /// <summary>Every project, with all that it may name in its sources.</summary>
    private static readonly Dictionary<string, string> MayKnow = new()
    {
        ["Core"] = "",
        ["Formats"] = "Core",
        ["Telemetry"] = "Core",
        ["Media"] = "Core Formats",
        ["Player"] = "Core Telemetry",
        ["PlayerHost"] = "Core Formats Telemetry Player",
        ["Store"] = "Core Formats",
        ["Workbench"] = "Core Formats Telemetry Media Store",
        ["Server"] = "Core Formats Media Store Workbench",
        ["Cli"] = "Core Formats Media Store Workbench Server",
    };

    private static readonly List<Source> All =
        [
            .. Directory
                .EnumerateFiles(Sources, "*.cs", SearchOption.AllDirectories)
                .Where(file => !BuiltPath().IsMatch(file))
                .Select(Read)
                .OfType<Source>(),
        ];

    private static readonly HashSet<string> Spaces = [.. All.Select(source => source.Space)];

    public static TheoryData<string> Projects =>
        new(Directory.EnumerateDirectories(Sources).Select(folder => Path.GetFileName(folder)["HardyBench.".Length..]));

    [Theory]
    [MemberData(nameof(Projects))]
    public void A_project_names_only_those_below_it(string project)
    {
        var known = All.Where(source => ProjectOf(source.Space) == project)
            .SelectMany(Known)
            .Select(ProjectOf)
            .Where(other => other != project)
            .Distinct();

        Assert.Subset(MayKnow[project].Split(' ', StringSplitOptions.RemoveEmptyEntries).ToHashSet(), known.ToHashSet());
    }

    /// <summary>Decoding and effects are native code that a hostile file can bring down: they are nowhere in what serves or
    /// keeps.</summary>
    [Theory]
    [InlineData("Cli")]
    [InlineData("Server")]
    [InlineData("Workbench")]
    public void The_player_is_reached_by_its_process_only(string project)
    {
        Assert.Contains("Core", Below(project));
        Assert.DoesNotContain("Player", Below(project));
        Assert.DoesNotContain("PlayerHost", Below(project));
    }

    [Fact]
    public void Rooms_know_each_other_one_way_only()
    {
        var below = All.ToLookup(source => RoomOf(source.Space), source => Known(source).Select(RoomOf).ToList());
        var (done, way) = (new HashSet<string>(), new List<string>());
        foreach (var room in below.Select(one => one.Key))
        {
            Visit(room);
        }

        Assert.True(done.Count > 30, $"only {done.Count} rooms were found");

        void Visit(string room)
        {
            Assert.False(way.Contains(room), $"a circle: {string.Join(" → ", way)} → {room}");
            if (done.Contains(room))
            {
                return;
            }

            way.Add(room);
            foreach (var other in below[room].SelectMany(rooms => rooms).Distinct().Where(other => other != room))
            {
                Visit(other);
            }

            way.RemoveAt(way.Count - 1);
            done.Add(room);
        }
    }

    /// <summary>Rules decide on findings, never on sentences: whatever is worded is worded after everything is decided.</summary>
    [Fact]
    public void Words_come_last()
    {
        var rules = All.Where(source => ProjectOf(source.Space) == "Core" && RoomOf(source.Space) != "Core.Wording").ToList();

        Assert.True(rules.Count > 100, $"only {rules.Count} rules were found");
        Assert.DoesNotContain(rules, source => Known(source).Contains("HardyBench.Core.Wording"));
    }

    /// <summary>The machine that the product runs on has an id of its own; only people call it "this". Its former name is read in
    /// one place.</summary>
    [Fact]
    public void Nothing_but_the_command_line_calls_a_machine_this()
    {
        var naming = All.Where(source => source.Text.Contains("\"this\"", StringComparison.Ordinal)).Select(source => RoomOf(source.Space));

        Assert.Equal(["Cli", "Formats.Json"], naming.Distinct().Order(StringComparer.Ordinal));
    }

    /// <summary>Whether a frame is shown must not depend on what plays it.</summary>
    [Fact]
    public void Pacing_depends_on_frame_rates_only()
    {
        var pacing = All.Where(source => RoomOf(source.Space) == "Core.Pacing").ToList();

        Assert.True(pacing.Count > 5, $"only {pacing.Count} sources were found");
        Assert.Subset(new HashSet<string> { "HardyBench.Core.Footage", "HardyBench.Core.Pacing" }, pacing.SelectMany(Known).ToHashSet());
    }

    /// <summary>All that a project is built with, itself left aside.</summary>
    private static HashSet<string> Below(string project) =>
        [
            .. XDocument
                .Load(Path.Combine(Sources, $"HardyBench.{project}", $"HardyBench.{project}.csproj"))
        .Descendants("ProjectReference").Where(one => (string?)one.Attribute("ReferenceOutputAssembly") != "false")
        .Select(one => Path.GetFileNameWithoutExtension(one.Attribute("Include")!.Value)["HardyBench.".Length..])
        .SelectMany(other => Below(other).Append(other))];

    private static string ProjectOf(string space) => space.Split('.')[1];

    private static string RoomOf(string space) => string.Join('.', space.Split('.').Skip(1).Take(2));

    private static Source? Read(string file)
    {
        var text = File.ReadAllText(file);
        return SpaceLine().Match(text) is { Success: true } space ? new Source(space.Groups[1].Value, text) : null;
    }

    /// <summary>The namespaces that a source names: in its using lines, or in full before a type.</summary>
    private static HashSet<string> Known(Source source) =>
    [
        .. UsingLine()
            .Matches(source.Text)
            .Select(match => match.Groups[1].Value)
            .Select(name => Spaces.Contains(name) ? name : name[..name.LastIndexOf('.')]),
        .. InFull()
            .Matches(UsingLine().Replace(source.Text, ""))
            .Select(match => $"HardyBench.{match.Groups[1].Value}")
            .Where(Spaces.Contains),
    ];

    [GeneratedRegex(@"/(obj|bin)/")]
    private static partial Regex BuiltPath();

    [GeneratedRegex(@"^namespace ([\w.]+);", RegexOptions.Multiline)]
    private static partial Regex SpaceLine();

    [GeneratedRegex(@"^using (?:static )?(HardyBench\.[\w.]+);", RegexOptions.Multiline)]
    private static partial Regex UsingLine();

    [GeneratedRegex(@"(?<![\w.])(?:HardyBench\.)?([A-Z]\w+\.[A-Z]\w+)\.[A-Z]\w+")]
    private static partial Regex InFull();

    private sealed record Source(string Space, string Text);
}
