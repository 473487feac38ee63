using System.Text.Json.Serialization;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.Timelines;

/// <summary>A benchmark timeline: passages one after another in one raster at one rate.</summary>
/// <param name="BitDepth">Bits a sample between effects; null for as deep as the deepest clip of each passage.</param>
/// <param name="Marks">Notes at moments; null for none.</param>
/// <param name="Metadata">JSON that came with an imported timeline and goes out with it again.</param>
public sealed record Timeline(
    string Id, string Title, Raster Raster, FrameRate Rate, IReadOnlyList<Passage> Passages,
    int? BitDepth = null, IReadOnlyList<TimelineMark>? Marks = null, string? Metadata = null)
{
    /// <summary>What it is for and where its footage comes from, in a few sentences; null for nothing said.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? About { get; init; }

    public long FrameCount => Passages.Sum(passage => (long)passage.FrameCount);

    /// <summary>The timeline frame on which the passage at <paramref name="index"/> begins.</summary>
    public long StartOf(int index) => Passages.Take(index).Sum(passage => (long)passage.FrameCount);

    /// <summary>For each passage the timeline frame after its last.</summary>
    public IReadOnlyList<long> Cuts()
    {
        var end = 0L;
        return [.. Passages.Select(passage => end += passage.FrameCount)];
    }

    /// <summary>The passage that a timeline frame belongs to; the last one for frames past the end.</summary>
    public int PassageIndexAt(long frame)
    {
        var index = 0;
        for (
            var end = Passages.Count > 0 ? (long)Passages[0].FrameCount : 0;
            frame >= end && index < Passages.Count - 1;
            end += Passages[index].FrameCount
        )
        {
            index++;
        }

        return index;
    }

    /// <summary>Whether pictures of these clips are treated with more than 8 bits a sample.</summary>
    public bool IsDeep(IEnumerable<ClipFormat> clips) => (BitDepth ?? clips.Select(clip => clip.BitDepth).DefaultIfEmpty(8).Max()) > 8;

    /// <summary>Ids of all clips it plays, each once, in order of first use.</summary>
    public IReadOnlyList<string> ClipIds =>
        [.. Passages.SelectMany(passage => passage.Layers).Select(layer => layer.ClipId).Distinct()];
}

/// <summary>A note at a moment of a timeline.</summary>
public sealed record TimelineMark(long Frame, string Name)
{
    /// <summary>JSON that came with it from another program and goes out with it again; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Metadata { get; init; }
}

/// <summary>How the top layer of a passage comes in over those below, for the length of the passage.</summary>
public enum Transition
{
    /// <summary>It fades in.</summary>
    Dissolve,

    /// <summary>An edge runs across and uncovers it.</summary>
    Wipe,

    /// <summary>Down to black, then up from black.</summary>
    Dip,
}

/// <summary>A stretch during which the stack of layers and effects does not change; the unit of every result.</summary>
/// <param name="Question">What this passage asks of a machine, in a few words.</param>
/// <param name="Layers">Bottom first; never empty.</param>
/// <param name="Over">Effects over all layers together.</param>
/// <param name="Transition">How the second layer comes in over the first, or null.</param>
public sealed record Passage(
    string Question, int FrameCount, IReadOnlyList<Layer> Layers, IReadOnlyList<Effect> Over, Transition? Transition = null)
{
    /// <summary>The passage as it is played: without the effects that are off.</summary>
    public Passage WithoutOff() => AllEffects().Any(effect => effect.IsOff)
        ? this with { Layers = [.. Layers.Select(layer => layer with { Effects = On(layer.Effects) })], Over = On(Over) }
        : this;

    private static List<Effect> On(IReadOnlyList<Effect> effects) => [.. effects.Where(effect => !effect.IsOff)];

    /// <summary>Those of every layer, bottom first, then those over all layers; those that are off too.</summary>
    public IEnumerable<Effect> AllEffects() => Layers.SelectMany(layer => layer.Effects).Concat(Over);
}

/// <summary>A clip from a frame on, looped, with its own effects.</summary>
/// <param name="StartFrame">Source frame shown first.</param>
/// <param name="Retime">Its speed; null as shot.</param>
/// <param name="Metadata">JSON that came with it from another program and goes out with it again.</param>
public sealed record Layer(
    string ClipId, IReadOnlyList<Effect> Effects, int StartFrame = 0, Retime? Retime = null, string? Metadata = null)
{
    /// <summary>Timeline frames that have gone by before the first that is shown, where a layer was cut in between. Counted apart from
    /// <see cref="StartFrame"/>, so that a retimed layer goes on between two of its frames.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public int Skipped { get; init; }

    /// <summary>How much of those below it hides, 0 to 1; null for all, as the lowest layer always does.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public double? Opacity { get; init; }

    /// <summary>Whether those below show through everywhere.</summary>
    [JsonIgnore]
    public bool IsTranslucent => Opacity is < 1;

    /// <summary>The source frame shown in a frame of the passage, looping aside.</summary>
    /// <param name="position">Frame within the passage, from 0.</param>
    public long SourceFrameAt(long position, FrameRate timeline, FrameRate source) =>
        StartFrame + timeline.SourceFrameFor(position + Skipped, source, Retime?.Speed ?? 1);
}

/// <summary>Another speed than as shot.</summary>
/// <param name="Speed">1 as shot, 0.5 half speed, 0 a freeze; never negative.</param>
public sealed record Retime(double Speed, RetimeMethod Method = RetimeMethod.Repeat);

/// <summary>Where frames come from when there are too few.</summary>
public enum RetimeMethod
{
    /// <summary>Frames are repeated or left out.</summary>
    Repeat,

    /// <summary>Neighbours are blended.</summary>
    Blend,

    /// <summary>New frames are made along the motion between neighbours.</summary>
    OpticalFlow,
}
