using HardyBench.Core.Footage;

namespace HardyBench.Core.Timelines;

/// <summary>A benchmark timeline: passages one after another in one raster at one rate.</summary>
public sealed record Timeline(
    string Id, string Title, Raster Raster, FrameRate Rate, IReadOnlyList<Passage> Passages)
{
    public long FrameCount => Passages.Sum(passage => (long)passage.FrameCount);

    /// <summary>The timeline frame on which the passage at <paramref name="index"/> begins.</summary>
    public long StartOf(int index) => Passages.Take(index).Sum(passage => (long)passage.FrameCount);

    /// <summary>The passage that a timeline frame belongs to; the last one for frames past the end.</summary>
    public int PassageIndexAt(long frame)
    {
        var index = 0;
        for (var end = (long)Passages[0].FrameCount; frame >= end && index < Passages.Count - 1; end += Passages[index].FrameCount)
        {
            index++;
        }

        return index;
    }

    /// <summary>Ids of all clips it plays, each once, in order of first use.</summary>
    public IReadOnlyList<string> ClipIds =>
        [.. Passages.SelectMany(passage => passage.Layers).Select(layer => layer.ClipId).Distinct()];
}

/// <summary>A stretch during which the stack of layers and effects does not change; the unit of every result.</summary>
/// <param name="Question">What this passage asks of a machine, in a few words.</param>
/// <param name="Layers">Bottom first; never empty.</param>
/// <param name="Over">Effects over all layers together.</param>
/// <param name="Dissolve">Whether the second layer fades in over the first for the length of the passage.</param>
public sealed record Passage(
    string Question, int FrameCount, IReadOnlyList<Layer> Layers, IReadOnlyList<Effect> Over, bool Dissolve = false);

/// <summary>A clip from its first frame on, looped, with its own effects.</summary>
public sealed record Layer(string ClipId, IReadOnlyList<Effect> Effects);
