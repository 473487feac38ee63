using System.Globalization;
using System.Text.Json.Nodes;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Imports;
using HardyBench.Formats.Interchange;

namespace HardyBench.Formats.Tests.Interchange;

/// <summary>Timelines and lists of tests/foreign, put together after the public descriptions of OpenTimelineIO and of CMX 3600 and by no
/// writer of ours; what each must become was worked out by hand.</summary>
public sealed class ForeignTimelineTests
{
    private static readonly string Folder = Repository.PathOf("tests", "foreign");

    private static readonly Dictionary<string, Clip> Clips = new[]
    {
        Clip("a", 25),
        Clip("b", 25),
        Clip("c", 25),
        Clip("act 1", 25),
        Clip("a24", 24),
        Clip("a50", 50),
        Clip("cam", 25) with
        {
            Track = new ClipTrack(0, 0, null, "10:00:00:00"),
        },
    }.ToDictionary(clip => clip.Id);

    public static TheoryData<string> Files => [.. Expected().Select(one => (string)one["file"]!)];

    [Theory]
    [MemberData(nameof(Files))]
    public void A_timeline_made_elsewhere_becomes_what_it_says(string file)
    {
        var expected = Expected().Single(one => (string)one["file"]! == file);
        var text = File.ReadAllText(Path.Combine(Folder, file));
        var rate = Rates.Parse((string)expected["rate"]!);
        var imported = file.EndsWith(".otio", StringComparison.Ordinal) ? OtioReader.Read(text) : EdlReader.Read(text, rate);

        var (timeline, notes) = StackCutter.Cut(imported, "t", Raster.Hd, media => Relinking.Find(media, Clips.Values));

        Assert.Equal(
            Texts(expected["passages"]!),
            timeline.Passages.Select((passage, i) => InWords(passage, Texts(expected["passages"]!).ElementAtOrDefault(i) ?? string.Empty))
        );
        Assert.Equal(
            Texts(expected["marks"]!),
            (timeline.Marks ?? []).OrderBy(mark => mark.Frame).Select(mark => $"{mark.Frame} {mark.Name}")
        );
        Assert.Equal(rate, timeline.Rate);
        var wanted = Texts(expected["notes"]!);
        Assert.All(wanted, note => Assert.Contains(notes, said => said.Contains(note, StringComparison.Ordinal)));
        Assert.True(notes.Count == wanted.Count, string.Join('\n', notes));
        Assert.All(
            timeline.Passages.SelectMany(passage => TimelineCheck.ProblemsOf(passage, Clips)),
            problem => Assert.Contains("not known", problem, StringComparison.Ordinal)
        );
    }

    /// <summary>The metadata of another program on the timeline, its tracks, references, marks and transitions goes out again as it
    /// came.</summary>
    [Fact]
    public void What_other_programs_noted_goes_out_again()
    {
        var imported = OtioReader.Read(File.ReadAllText(Path.Combine(Folder, "otio", "collection-of-metadata.otio")));
        var (timeline, _) = StackCutter.Cut(imported, "t", Raster.Hd, media => Relinking.Find(media, Clips.Values));

        var written = JsonNode.Parse(OtioWriter.Write(timeline, Clips))!;
        var (again, _) = StackCutter.Cut(
            OtioReader.Read(written.ToJsonString()),
            "t",
            Raster.Hd,
            media => Relinking.Find(media, Clips.Values)
        );

        Assert.Equal(90000, (double)written["global_start_time"]!["value"]!);
        Assert.Equal("x", (string)written["metadata"]!["maker"]!["job"]!);
        Assert.True((bool)written["metadata"]!["hardy-bench"]!["tracks"]![0]!["metadata"]!["maker"]!["locked"]!);
        var first = written["tracks"]!["children"]![0]!["children"]![0]!["children"]![0]!["children"]![0]!;
        Assert.Equal(1, (int)first["metadata"]!["maker"]!["note"]![0]!);
        Assert.Equal("7", (string)first["media_references"]!["DEFAULT_MEDIA"]!["metadata"]!["maker"]!["reel"]!);
        var transition = written["tracks"]!["children"]![0]!["children"]![1]!["children"]![0]!["children"]![1]!;
        Assert.Equal(2, (int)transition["metadata"]!["maker"]!["curve"]!);
        Assert.Equal(
            timeline.Passages.Select(passage => InWords(passage, string.Empty)),
            again.Passages.Select(passage => InWords(passage, string.Empty))
        );
        Assert.Equal(90000, (double)JsonNode.Parse(OtioWriter.Write(again, Clips))!["global_start_time"]!["value"]!);
    }

    /// <summary>"frames: layer + layer transition (question)", the question where it is asked for.</summary>
    private static string InWords(Passage passage, string like) => string.Create(
        CultureInfo.InvariantCulture,
        $"{passage.FrameCount}: {string.Join(" + ", passage.Layers.Select(layer => $"{layer.ClipId}@{layer.StartFrame}{(layer.Retime is { } retime ? $" x{retime.Speed:0.###}" : string.Empty)}"))}{(passage.Transition is { } transition ? $" {transition.ToString().ToLowerInvariant()}" : string.Empty)}{(like.EndsWith(')') ? $" ({passage.Question})" : string.Empty)}"
    );

    private static IReadOnlyList<string> Texts(JsonNode list) => [.. list.AsArray().Select(one => (string)one!)];

    private static IEnumerable<JsonNode> Expected() =>
        JsonNode.Parse(File.ReadAllText(Path.Combine(Folder, "timelines.json")))!.AsArray().Select(one => one!);

    private static Clip Clip(string id, int rate) => new(
        id,
        $"{id} title",
        new ClipFormat(Codec.Avc, ChromaSubsampling.Quarter, 8, Raster.Hd, new FrameRate(rate), 12, DataRate.FromMegabits(10)),
        500,
        $"sha-{id}"
    );
}
