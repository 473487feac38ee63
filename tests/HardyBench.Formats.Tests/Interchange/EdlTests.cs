using CsCheck;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Imports;
using HardyBench.Formats.Interchange;
using HardyBench.Formats.Timelines;

namespace HardyBench.Formats.Tests.Interchange;

public sealed class EdlTests
{
    private static readonly FrameRate R25 = new(25);

    /// <summary>Written by hand after the layout of CMX 3600 lists.</summary>
    private const string Foreign = """
        TITLE: EVENING
        FCM: NON-DROP FRAME

        001  REEL01   V     C        01:00:10:00 01:00:12:00 01:00:00:00 01:00:02:00
        * FROM CLIP NAME: A
        002  REEL01   V     C        01:00:12:00 01:00:12:00 01:00:02:00 01:00:02:00
        002  REEL02   V     D    025 00:00:05:00 00:00:09:00 01:00:02:00 01:00:06:00
        * FROM CLIP NAME: A
        * TO CLIP NAME: B
        003  REEL02   V     C        00:00:20:00 00:00:21:00 01:00:06:00 01:00:08:00
        M2   REEL02         012.5                00:00:20:00
        * FROM CLIP NAME: B
        004  BL       V     C        00:00:00:00 00:00:01:00 01:00:08:00 01:00:09:00
        005  REEL01   V     W001 010 01:00:30:00 01:00:31:00 01:00:09:00 01:00:10:00
        006  REEL01   A     C        01:00:30:00 01:00:31:00 01:00:09:00 01:00:10:00
        """;

    [Fact]
    public void A_list_of_another_program_is_read()
    {
        var imported = EdlReader.Read(Foreign, R25);
        var (timeline, notes) = StackCutter.Cut(imported, "t", Raster.Hd, media => Relinking.Find(media, Timelines.Clips.Values));

        Assert.Equal("EVENING", timeline.Title);
        Assert.Equal([50, 25, 75, 50, 10, 15], timeline.Passages.Select(passage => passage.FrameCount));
        Assert.Equal(
            ["a", "a+b", "b", "b"],
            timeline.Passages.Take(4).Select(passage => string.Join('+', passage.Layers.Select(layer => layer.ClipId)))
        );
        Assert.Equal(Transition.Dissolve, timeline.Passages[1].Transition);
        Assert.Equal(new Retime(0.5), timeline.Passages[3].Layers[0].Retime);
        Assert.Contains(notes, note => note.Contains("black", StringComparison.Ordinal));
        Assert.Contains(notes, note => note.Contains("Sound", StringComparison.Ordinal));
    }

    [Fact]
    public void Nothing_that_a_list_can_carry_is_lost_and_the_rest_is_told() => Timelines.Any.Sample(
        timeline =>
        {
            // What a list can carry: one layer, or two in a dissolve or wipe, at speeds of one decimal, of footage at the list's rate.
            var clips = Timelines.Clips.ToDictionary(
                clip => clip.Key,
                clip => clip.Value with { Format = clip.Value.Format with { Rate = timeline.Rate } }
            );
            var carried = timeline with
            {
                BitDepth = null, Marks = null, Metadata = null, About = null,
                Passages = [.. timeline.Passages.Select((passage, i) => passage with
                {
                    Question = passage.Transition is null or Transition.Dip || passage.Layers.Count != 2
                        ? passage.Layers[0].ClipId
                        : string.Join(" over ", passage.Layers.Select(layer => layer.ClipId).Reverse().Distinct()),
                    Over = [],
                    Transition = passage.Transition == Transition.Dip ? null : passage.Transition,
                    Layers = [.. passage.Layers.Take(passage.Transition is Transition.Dissolve or Transition.Wipe ? 2 : 1)
                        .Select(layer =>
                            layer with
                            {
                                Effects = [],
                                Metadata = null,
                                Opacity = null,
                                Retime = layer.Retime is { } retime ? new Retime(retime.Speed) : null,
                            }
                        ),
                ],
                })],
            };

            var (text, lost) = EdlWriter.Write(carried, clips);
            var (back, notes) = StackCutter.Cut(
                EdlReader.Read(text, timeline.Rate),
                "t",
                Raster.Hd,
                media => Relinking.Find(media, clips.Values)
            );

            Assert.Empty(lost);
            Assert.Empty(notes);
            Assert.Equal(TimelineJson.Write(carried), TimelineJson.Write(back));

            var (_, told) = EdlWriter.Write(timeline, clips);
            Assert.Equal(
                timeline.Passages.Sum(passage =>
                    passage.Over.Count
                    + passage.Layers.Sum(layer => layer.Effects.Count)
                    + passage.Layers.Count(layer => layer.IsTranslucent)
                    + (passage.Transition is Transition.Dissolve or Transition.Wipe ? 0 : passage.Layers.Count - 1)
                    + (passage.Transition == Transition.Dip ? 1 : 0)
                ) + (timeline.About is null ? 0 : 1),
                told.Count);
        },
        iter: 300);

    [Fact]
    public void A_speed_that_one_decimal_cannot_say_is_told()
    {
        var timeline = new Timeline("t", "T", Raster.Hd, R25, [new Passage("q", 50, [new Layer("a", [], 0, new Retime(0.25))], [])]);

        var (text, lost) = EdlWriter.Write(timeline, Timelines.Clips);

        Assert.Contains("M2   A        006.3", text, StringComparison.Ordinal);
        Assert.Contains("a speed of 25 %", Assert.Single(lost), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("", "no video event")]
    [InlineData("TITLE: X\n001  R V C 00:00:00:00 00:00:01:00 00:00:00:00 00:00:99:00", "Line 2")]
    [InlineData("001  R V K    00:00:00:00 00:00:01:00 00:00:00:00 00:00:01:00", "not a known kind of edit")]
    [InlineData("001 nonsense", "Line 1")]
    [InlineData("M2 R 012.5 00:00:00:00", "no earlier event uses")]
    public void What_is_no_list_is_a_clear_error_that_names_the_line(string text, string words) =>
        Assert.Contains(words, Assert.Throws<InterchangeException>(() => EdlReader.Read(text, R25)).Message, StringComparison.Ordinal);

    [Fact]
    public void Mutated_lists_give_a_result_or_a_clear_error()
    {
        var sources = new List<string> { Foreign };
        Timelines.Any.Sample(timeline => { lock (sources) { sources.Add(EdlWriter.Write(timeline, Timelines.Clips).Text); } }, iter: 20);
        Fuzz.Run(sources, 5000, text => StackCutter.Cut(EdlReader.Read(text, R25), "t", Raster.Hd, _ => null));
    }
}
