using System.Globalization;
using System.Text;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;

namespace HardyBench.Formats.Interchange;

/// <summary>Writes CMX 3600 edit decision lists. What the format cannot carry — more layers than one, effects, dips — stands
/// in comments and is reported.</summary>
public static class EdlWriter
{
    /// <returns>The list, and what it could not carry: sentences.</returns>
    public static (string Text, IReadOnlyList<string> Notes) Write(Timeline timeline, IReadOnlyDictionary<string, Clip> clips)
    {
        var (text, notes) = (new StringBuilder(), new List<string>());
        var drop = Timecode.HasDropFrame(timeline.Rate);
        text.Append(CultureInfo.InvariantCulture, $"TITLE: {OneLine(timeline.Title)}\nFCM: {(drop ? "DROP FRAME" : "NON-DROP FRAME")}\n");
        if (timeline.About is not null)
        {
            notes.Add("An edit decision list cannot carry the description of the timeline.");
        }

        var at = timeline.Rate.NominalFramesPerSecond * 3600L;
        at = drop ? Timecode.Parse("01:00:00;00", timeline.Rate) : at;
        foreach (var (index, passage) in timeline.Passages.Index())
        {
            Event(text, notes, index + 1, passage, at, timeline, clips);
            at += passage.FrameCount;
        }

        return (text.ToString(), notes);
    }

    private static void Event(
        StringBuilder text,
        List<string> notes,
        int number,
        Passage passage,
        long at,
        Timeline timeline,
        IReadOnlyDictionary<string, Clip> clips
    )
    {
        var lost = new List<string>();
        var transition = passage is { Layers.Count: 2, Transition: Transition.Dissolve or Transition.Wipe } ? passage.Transition : null;
        var shown = transition is null ? passage.Layers[0] : passage.Layers[1];
        if (transition is not null)
        {
            Line(text, number, "C", passage.Layers[0], 0, at);
            Line(
                text,
                number,
                (transition == Transition.Dissolve ? "D" : "W001")
                    + string.Create(CultureInfo.InvariantCulture, $"    {Math.Min(999, passage.FrameCount):000}"),
                shown,
                passage.FrameCount,
                at
            );
            // Where anything is retimed at all, a transition says both speeds: both clips can be on one reel, and the clip
            // that leaves can be on that of the event before.
            if (timeline.Passages.Any(other => other.Layers.Any(layer => layer.Retime is not null)))
            {
                Speed(passage.Layers[0]);
                Speed(shown);
            }

            text.Append(CultureInfo.InvariantCulture, $"* FROM CLIP NAME: {passage.Layers[0].ClipId}\n* TO CLIP NAME: {shown.ClipId}\n");
            if (passage.FrameCount > 999)
            {
                lost.Add($"a transition of {passage.FrameCount} frames, cut to 999");
            }
        }
        else
        {
            Line(text, number, "C", shown, passage.FrameCount, at);
            if (shown.Retime is not null)
            {
                Speed(shown);
            }

            text.Append(CultureInfo.InvariantCulture, $"* FROM CLIP NAME: {shown.ClipId}\n");
            lost.AddRange(passage.Layers.Skip(1).Select((layer, i) => $"layer {i + 2}, {layer.ClipId}"));
            if (passage.Transition is { } other)
            {
                lost.Add($"a {other.ToString().ToLowerInvariant()}");
            }
        }

        lost.AddRange(
            passage
                .Layers.Where(layer => layer.IsTranslucent)
                .Select(layer => string.Create(CultureInfo.InvariantCulture, $"an opacity of {layer.Opacity * 100:0.##} %"))
        );
        lost.AddRange(passage.AllEffects().Select(effect => $"the effect {effect.Label}"));
        foreach (var thing in lost)
        {
            text.Append(CultureInfo.InvariantCulture, $"* NOT CARRIED: {thing}\n");
            notes.Add($"Passage {number}: {thing} cannot be carried by an edit decision list; a comment names it.");
        }

        void Line(StringBuilder into, int event_, string kind, Layer layer, long length, long record)
        {
            var from = From(layer);
            var to = from + timeline.Rate.SourceFrameFor(length, timeline.Rate, layer.Retime?.Speed ?? 1);
            into.Append(
                CultureInfo.InvariantCulture,
                $"{event_:000}  {Reel(layer.ClipId), -8} V     {kind, -8} {Code(from)} {Code(to)} {Code(record)} {Code(record + length)}\n"
            );
        }

        void Speed(Layer layer)
        {
            var speed = layer.Retime?.Speed ?? 1;
            var framesPerSecond = speed * timeline.Rate.NominalFramesPerSecond;
            var written = Math.Round(framesPerSecond, 1, MidpointRounding.AwayFromZero);
            if (Math.Abs(written - framesPerSecond) > 1e-9)
            {
                lost.Add(
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"a speed of {speed * 100:0.##} %, written as {written:0.0} frames a second"
                    )
                );
            }

            text.Append(CultureInfo.InvariantCulture, $"M2   {Reel(layer.ClipId),-8} {written:000.0}                {Code(From(layer))}\n");
        }

        long From(Layer layer)
        {
            var source = clips.GetValueOrDefault(layer.ClipId)?.Format.Rate ?? timeline.Rate;
            return (long)Math.Round(layer.SourceFrameAt(0, timeline.Rate, source) * timeline.Rate.FramesPerSecond / source.FramesPerSecond);
        }

        string Code(long frame) => Timecode.Of(frame, timeline.Rate);
    }

    /// <summary>Eight letters at most; the whole name stands in a comment.</summary>
    private static string Reel(string id)
    {
        var reel = string.Concat(id.ToUpperInvariant().Where(char.IsAsciiLetterOrDigit));
        return reel.Length == 0 ? "AX" : reel[..Math.Min(8, reel.Length)];
    }

    private static string OneLine(string text) => string.Concat(text.Select(letter => char.IsControl(letter) ? ' ' : letter));
}
