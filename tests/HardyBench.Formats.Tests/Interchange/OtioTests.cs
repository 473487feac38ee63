using System.Text.RegularExpressions;
using CsCheck;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Core.Timelines.Imports;
using HardyBench.Formats.Interchange;
using HardyBench.Formats.Timelines;

namespace HardyBench.Formats.Tests.Interchange;

public sealed class OtioTests
{
    [Fact]
    public void Nothing_is_lost_on_the_way_out_and_back() => Timelines.Any.Sample(
        timeline =>
        {
            var text = OtioWriter.Write(timeline, Timelines.Clips);
            var (back, notes) = Cut(OtioReader.Read(text), timeline);

            Assert.Empty(notes);
            Assert.Equal(TimelineJson.Write(timeline), TimelineJson.Write(back));
        },
        iter: 300);

    /// <summary>Written by hand after the OpenTimelineIO schema, the way other programs write.</summary>
    [Fact]
    public void A_timeline_of_another_program_is_cut_where_its_stack_changes()
    {
        var imported = OtioReader.Read(Foreign);
        var (timeline, notes) = StackCutter.Cut(imported, "t", Raster.Hd, media => Relinking.Find(media, Timelines.Clips.Values));

        Assert.Equal(("Evening", new FrameRate(24)), (timeline.Title, timeline.Rate));
        Assert.Equal([24, 12, 12, 24, 12], timeline.Passages.Select(passage => passage.FrameCount));
        Assert.Equal(
            ["a", "a+logo", "a+b", "b", "b"],
            timeline.Passages.Select(passage => string.Join('+', passage.Layers.Select(layer => layer.ClipId)))
        );
        Assert.Equal([null, null, Transition.Dissolve, null, null], timeline.Passages.Select(passage => passage.Transition));
        Assert.Equal([10, 34, 46, 18, 30], timeline.Passages.Select(passage => passage.Layers[0].StartFrame));
        Assert.Equal(new Retime(0.5), timeline.Passages[4].Layers[0].Retime);
        Assert.Equal("nested", timeline.Passages[4].Question);
        Assert.Equal([new TimelineMark(30, "look here") { Metadata = """{"hardy-bench":{"color":"RED"}}""" }], timeline.Marks!);
        Assert.StartsWith("""{"other":{"kept":[1,2]},"hardy-bench":{"global_start_time":""", timeline.Metadata, StringComparison.Ordinal);
        Assert.Contains(notes, note => note.Contains("'Sparkle'", StringComparison.Ordinal));
        Assert.Contains(notes, note => note.Contains("Audio", StringComparison.Ordinal));
        Assert.Contains(notes, note => note.Contains("12 frames from 00:00:03:00 on are empty", StringComparison.Ordinal));
    }

    [Fact]
    public void Footage_is_found_by_name_then_by_checksum_and_what_is_missing_gets_the_same_format()
    {
        var clips = Timelines.Clips.Values;
        var format = Timelines.Clips["a"].Format;

        Assert.Equal("a", Relinking.Find(new ImportedMedia("k", "A", null, null, null), clips)!.Id);
        Assert.Equal("b", Relinking.Find(new ImportedMedia("k", "reel 7", "file:///media/b.mov", null, null), clips)!.Id);
        Assert.Equal("logo", Relinking.Find(new ImportedMedia("k", "reel 7", null, "SHA-LOGO", null), clips)!.Id);
        Assert.Null(Relinking.Find(new ImportedMedia("k", "reel 7", null, null, format), clips));
        Assert.Equal(["a"], Relinking.Substitutes(new ImportedMedia("k", "reel 7", null, null, format), clips).Select(clip => clip.Id));
    }

    [Theory]
    [InlineData("")]
    [InlineData("null")]
    [InlineData("[]")]
    [InlineData("{\"OTIO_SCHEMA\":\"Clip.2\"}")]
    [InlineData("{\"OTIO_SCHEMA\":\"Timeline.1\"}")]
    [InlineData("{\"OTIO_SCHEMA\":\"Timeline.1\",\"tracks\":{\"OTIO_SCHEMA\":\"Stack.1\"}}")]
    public void What_is_no_timeline_is_a_clear_error(string text) => Assert.Throws<InterchangeException>(() => OtioReader.Read(text));

    [Fact]
    public void Ten_thousand_mutated_files_give_a_result_or_a_clear_error()
    {
        var sources = new List<string> { Foreign };
        Timelines.Any.Sample(timeline => { lock (sources) { sources.Add(OtioWriter.Write(timeline, Timelines.Clips)); } }, iter: 20);
        Fuzz.Run(sources, 5000, text => StackCutter.Cut(OtioReader.Read(text), "t", Raster.Hd, _ => null));
    }

    private static (Timeline Timeline, IReadOnlyList<string> Notes) Cut(ImportedTimeline imported, Timeline original) =>
        StackCutter.Cut(imported, original.Id, Raster.Hd, media => Relinking.Find(media, Timelines.Clips.Values));

    private static string Time(string value) => "{\"OTIO_SCHEMA\":\"RationalTime.1\",\"rate\":24.0,\"value\":" + value + ".0}";

    /// <summary>Writes times and ranges out: TIME(6), RANGE(10,42).</summary>
    private static string WrittenOut(string text) => Regex.Replace(
        Regex.Replace(text, @"RANGE\((\d+),(\d+)\)", match =>
            "{\"OTIO_SCHEMA\":\"TimeRange.1\",\"start_time\":"
            + Time(match.Groups[1].Value)
            + ",\"duration\":"
            + Time(match.Groups[2].Value)
            + "}"
        ),
        @"TIME\((\d+)\)", match => Time(match.Groups[1].Value));

    private static readonly string Foreign = WrittenOut("""
        {"OTIO_SCHEMA":"Timeline.1","name":"Evening","metadata":{"other":{"kept":[1,2]}},"global_start_time":TIME(86400),
         "tracks":{"OTIO_SCHEMA":"Stack.1","name":"","source_range":null,"markers":[],"effects":[],"children":[
          {"OTIO_SCHEMA":"Track.1","name":"V1","kind":"Video","source_range":null,"markers":[],"effects":[],"children":[
            {"OTIO_SCHEMA":"Clip.1","name":"a","source_range":RANGE(10,42),"effects":[],
             "markers":[{"OTIO_SCHEMA":"Marker.2","name":"look here","color":"RED","marked_range":RANGE(40,1)}],
             "media_reference":{"OTIO_SCHEMA":"ExternalReference.1","target_url":"file:///somewhere/a.mov","available_range":null}},
            {"OTIO_SCHEMA":"Transition.1","name":"","transition_type":"SMPTE_Dissolve","in_offset":TIME(6),"out_offset":TIME(6)},
            {"OTIO_SCHEMA":"Clip.2","name":"b","source_range":RANGE(12,30),"effects":[],"active_media_reference_key":"DEFAULT_MEDIA",
             "media_references":{"DEFAULT_MEDIA":{"OTIO_SCHEMA":"ExternalReference.1","name":"","target_url":"b.mov"}}},
            {"OTIO_SCHEMA":"Gap.1","source_range":RANGE(0,12)},
            {"OTIO_SCHEMA":"Stack.1","name":"nested","source_range":null,"children":[
              {"OTIO_SCHEMA":"Track.1","kind":"Video","source_range":RANGE(6,12),"children":[
                {"OTIO_SCHEMA":"Clip.1","name":"b","source_range":RANGE(27,100),
                 "effects":[{"OTIO_SCHEMA":"LinearTimeWarp.1","name":"","effect_name":"","time_scalar":0.5}],
                 "media_reference":{"OTIO_SCHEMA":"MissingReference.1","name":""}}]}]}
          ]},
          {"OTIO_SCHEMA":"Track.1","name":"V2","kind":"Video","source_range":null,"children":[
            {"OTIO_SCHEMA":"Gap.1","source_range":RANGE(0,24)},
            {"OTIO_SCHEMA":"Clip.1","name":"logo","source_range":RANGE(0,12),
             "effects":[{"OTIO_SCHEMA":"Effect.1","name":"","effect_name":"Sparkle"}],"media_reference":{"OTIO_SCHEMA":"MissingReference.1"}}
          ]},
          {"OTIO_SCHEMA":"Track.1","name":"A1","kind":"Audio","children":[]}
         ]}}
        """);
}
