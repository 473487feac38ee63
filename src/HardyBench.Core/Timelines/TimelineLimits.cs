namespace HardyBench.Core.Timelines;

/// <summary>A timeline is not kept, because it is larger than any that can be worked with or lacks a part; the message says
/// which.</summary>
public sealed class TimelineRefusedException(string message) : Exception(message);

/// <summary>How large a timeline may be, wherever it comes from: written on the page, imported, in a pack or read back. Far above what a
/// test needs, and low enough that one timeline never slows the others.</summary>
public static class TimelineLimits
{
    public const int MaxPassages = 5000,
        MaxLayersInPassage = 64,
        MaxLayers = 20_000,
        MaxEffectsInPlace = 32,
        MaxEffects = 40_000,
        MaxMarks = 5000;
    public const int LongestName = 300, LongestText = 1000, LongestMetadata = 64 << 10, MaxMetadata = 1 << 20;
    public const int SmallestSide = 16, LargestSide = 16384;
    public const long MaxPixels = 16384L * 8704;

    /// <summary>A day at the highest rate of the table of rates.</summary>
    public const long MaxFrames = 24L * 3600 * 240;

    private const double LowestRate = 1, HighestRate = 1000;
    private static readonly int?[] Depths = [null, 8, 10, 12, 16];

    /// <exception cref="TimelineRefusedException">It cannot be kept; the message says why, and that nothing was.</exception>
    public static Timeline Checked(Timeline? timeline) => Problems(timeline).FirstOrDefault() is { } problem
        ? throw new TimelineRefusedException($"{problem} Nothing was saved.")
        : timeline!;

    /// <summary>What is wrong with it, a sentence each; parts that are missing altogether come first and alone.</summary>
    public static IEnumerable<string> Problems(Timeline? timeline)
    {
        if (Missing(timeline) is { } missing)
        {
            return [$"The timeline lacks {missing}."];
        }

        return OfSize(timeline!).OfType<string>();
    }

    private static string? Missing(Timeline? timeline) =>
        timeline is null ? "everything"
        : timeline.Id is null ? "an id"
        : timeline.Title is null ? "a title"
        : timeline.Raster == default ? "a raster"
        : timeline.Rate == default ? "a rate"
        : timeline.Passages is null || timeline.Passages.Contains(null!) ? "passages, or one of them is empty"
        : timeline.Marks?.Any(mark => mark?.Name is null) == true ? "the name of a mark"
        : timeline.Passages.Select(Missing).OfType<string>().FirstOrDefault();

    private static string? Missing(Passage passage) =>
        passage.Question is null ? "the question of a passage"
        : passage.Layers is null || passage.Layers.Contains(null!) ? "the layers of a passage"
        : passage.Layers.Any(layer => layer.ClipId is null) ? "the clip of a layer"
        : passage.Over is null || passage.Layers.Any(layer => layer.Effects is null) ? "the effects of a passage"
        : passage.AllEffects().Any(effect => effect?.Id is null || effect.Settings is null) ? "the id or the settings of an effect"
        : null;

    private static IEnumerable<string?> OfSize(Timeline timeline)
    {
        var (width, height, rate) = (timeline.Raster.Width, timeline.Raster.Height, timeline.Rate.FramesPerSecond);
        yield return Math.Min(width, height) >= SmallestSide
        && Math.Max(width, height) <= LargestSide
        && timeline.Raster.Pixels <= MaxPixels
            ? null
            : $"A raster of {width}×{height} cannot be played; allowed: {SmallestSide} to {LargestSide} a side and up to "
                + $"{MaxPixels / 1_000_000} million pixels.";
        yield return rate is >= LowestRate and <= HighestRate
            ? null
            : FormattableString.Invariant($"{rate:0.###} frames a second cannot be played; allowed: {LowestRate} to {HighestRate}.");
        yield return Depths.Contains(timeline.BitDepth) ? null : $"{timeline.BitDepth} bits a sample cannot be played; allowed: 8, 10, 12 or 16.";
        yield return AtMost("passages", timeline.Passages.Count, MaxPassages);
        yield return AtMost("layers", timeline.Passages.Sum(passage => (long)passage.Layers.Count), MaxLayers);
        yield return AtMost(
            "layers in a passage",
            timeline.Passages.Select(passage => passage.Layers.Count).DefaultIfEmpty().Max(),
            MaxLayersInPassage
        );
        yield return AtMost("effects", timeline.Passages.Sum(passage => (long)passage.AllEffects().Count()), MaxEffects);
        yield return AtMost(
            "effects in one place",
            timeline
                .Passages.SelectMany(passage => passage.Layers.Select(layer => layer.Effects.Count).Append(passage.Over.Count))
                .DefaultIfEmpty()
                .Max(),
            MaxEffectsInPlace
        );
        yield return AtMost(
            "settings of an effect",
            timeline.Passages.SelectMany(passage => passage.AllEffects()).Select(effect => effect.Settings.Count).DefaultIfEmpty().Max(),
            MaxEffectsInPlace
        );
        yield return AtMost("marks", timeline.Marks?.Count ?? 0, MaxMarks);
        yield return timeline.Passages.All(passage => passage.FrameCount >= 0) ? null : "A passage has a negative length.";
        yield return AtMost("frames", timeline.Passages.Sum(passage => (long)passage.FrameCount), MaxFrames);
        yield return timeline.Passages.All(passage => passage.Transition is not { } kind || Enum.IsDefined(kind))
            ? null
            : "A passage has an unknown transition.";
        yield return timeline
            .Passages.SelectMany(passage => passage.Layers)
            .All(layer => layer.Retime is not { } retime || Enum.IsDefined(retime.Method))
            ? null
            : "A layer has an unknown retime.";
        yield return Short("The title", [timeline.Title], LongestName) ?? Short("The id", [timeline.Id], LongestName)
            ?? Short("The description", [timeline.About ?? string.Empty], LongestText);
        yield return Short("The question of a passage", timeline.Passages.Select(passage => passage.Question), LongestName);
        yield return Short(
            "The clip's id of a layer",
            timeline.Passages.SelectMany(passage => passage.Layers).Select(layer => layer.ClipId),
            LongestText
        );
        yield return Short("The name of a mark", (timeline.Marks ?? []).Select(mark => mark.Name), LongestName);
        yield return Short(
            "The text or the id of an effect",
            timeline
                .Passages.SelectMany(passage => passage.AllEffects())
                .SelectMany(effect => new[] { effect.Id, effect.Text ?? string.Empty }),
            LongestText
        );
        var metadata = timeline
            .Passages.SelectMany(passage => passage.Layers)
            .Select(layer => layer.Metadata)
            .Concat((timeline.Marks ?? []).Select(mark => mark.Metadata))
            .Append(timeline.Metadata)
            .OfType<string>()
            .ToList();
        yield return Short("The metadata of another program", metadata, LongestMetadata);
        yield return AtMost("letters of other programs' metadata", metadata.Sum(text => (long)text.Length), MaxMetadata);
    }

    private static string? AtMost(string what, long count, long most) =>
        count <= most ? null : FormattableString.Invariant($"The timeline has {count} {what}; allowed: at most {most}.");

    private static string? Short(string what, IEnumerable<string> texts, int longest) =>
        texts.FirstOrDefault(text => text.Length > longest) is { } text
            ? $"{what} has {text.Length} letters; allowed: at most {longest}."
            : null;
}
