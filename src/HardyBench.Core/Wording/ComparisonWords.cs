using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Findings.Statistics;
using HardyBench.Core.Machines;
using static System.FormattableString;

namespace HardyBench.Core.Wording;

/// <summary>Comparisons in words.</summary>
public static class ComparisonWords
{
    /// <summary>The sum of it, two sentences.</summary>
    /// <param name="name">Of this side.</param>
    /// <param name="baseName">Of the base.</param>
    public static string Sum(SideBeside side, string name, string baseName)
    {
        var verdicts = (side.Better.Count, side.Worse.Count) switch
        {
            (0, 0) => $"{name} gives every passage the same verdict as {baseName}.",
            (_, 0) => $"{name} does better than {baseName} in {Passages(side.Better)}, worse in none.",
            (0, _) => $"{name} does worse than {baseName} in {Passages(side.Worse)}, better in none.",
            _ => $"{name} does better than {baseName} in {Passages(side.Better)} and worse in {Passages(side.Worse)}.",
        };
        var ratio = side.MeanRatio switch
        {
            null => side.WithoutRatio > 0 ? "There is no passage of which both show any frame." : "No passage was played by both.",
            >= 0.995 and <= 1.005 => $"{Whole(side)} it shows as many frames; where both hold, only headroom tells them apart.",
            var mean => Invariant($"{Whole(side)} it shows {mean:0.00} times the frames (geometric mean over passages)."),
        };
        return $"{verdicts} {ratio}";
    }

    private static string Whole(SideBeside side) => side.WithoutRatio == 0 ? "On the whole"
        : $"Leaving aside {(side.WithoutRatio == 1 ? "a passage" : $"{side.WithoutRatio} passages")} of which one of them shows nothing,";

    /// <summary>Sides that differ in one thing only, a sentence.</summary>
    public static string Of(Axis axis)
    {
        var (first, last, knee) = (axis.Points[0], axis.Points[^1], axis.Points[axis.Knee]);
        if (!axis.HasSizes)
        {
            var best = Listed([.. axis.Points.Skip(axis.Knee).Select(point => point.Text)]);
            return axis.Knee == 0 ? $"Whichever {About(axis.What, axis.Of)} plays, as many frames are shown."
                : Invariant($"By {About(axis.What, axis.Of)} {best} {(axis.Knee == axis.Points.Count - 1 ? "shows" : "show")} most, × {last.Ratio / first.Ratio:0.00} of {first.Text}.");
        }

        var along = $"Along {About(axis.What, axis.Of)} from {first.Text} to {last.Text}: ";
        return along + (axis.Knee == 0 ? $"{first.Text} shows as many frames as any."
            : knee == last ? Invariant($"every step gains, × {last.Ratio / first.Ratio:0.00} at {last.Text}.")
            : Invariant($"× {knee.Ratio / first.Ratio:0.00} up to {knee.Text}, from there on no more frames are shown."));
    }

    /// <summary>A passage beside the base, a phrase; empty where there is nothing to say.</summary>
    public static string Of(PassageBeside passage) => passage.Difference switch
    {
        null => string.Empty,
        { Mean: 0, Half: null or 0 } => passage.Headroom switch
        {
            null or (>= 0.95 and <= 1.05) => "the same",
            var headroom => Invariant($"both hold, × {headroom:0.0} headroom"),
        },
        { } difference => Invariant($"{difference.Mean:+0.0;−0.0;0.0}")
            + (difference.Half is > 0 and var half ? Invariant($" ± {half:0.0}") : string.Empty)
            + (passage.Ratio is { } ratio ? Invariant($", × {ratio:0.00}") : string.Empty)
            + (passage.IsReal switch { true => ", real", false => ", within noise" + ToFind(passage), null => string.Empty }),
    };

    private static string ToFind(PassageBeside passage) =>
        passage.RunsToFind is { } runs ? Invariant($" (to find {RepeatsToFind.Share:0%} takes {runs} runs a side)") : string.Empty;

    /// <summary>What a difference of conditions is about, a phrase.</summary>
    public static string About(ConditionDifference difference) => About(difference.What, difference.Of);

    /// <summary>What was replaced by what, a phrase.</summary>
    public static string Change(ConditionDifference difference) =>
        $"{About(difference)} {difference.Base ?? "not stated"} → {difference.Other ?? "not stated"}";

    /// <inheritdoc cref="About(ConditionDifference)"/>
    public static string About(Condition what, string? of) => what == Condition.Figure
        ? MachineFigures.All.First(figure => figure.Path == of).Name
        : Named(what) + (of is null ? string.Empty : $" {of}");

    private static string Named(Condition what) => what switch
    {
        Condition.Timeline => "timeline",
        Condition.TimelineRaster => "timeline raster",
        Condition.TimelineRate => "timeline rate",
        Condition.Footage => "file of",
        Condition.PreviewScale => "preview scale",
        Condition.AutomaticScale => "scale steps down by itself",
        Condition.Policy => "kept under load",
        Condition.WrittenAs => "written as",
        Condition.LookAhead => "look-ahead",
        Condition.PreviewPictures => "preview pictures",
        Condition.Proxies => "proxies",
        Condition.PreRenders => "pre-renders used",
        Condition.FileCache => "file cache",
        Condition.DecodeAskedOn => "decoding",
        Condition.EffectsAskedOn => "effects",
        Condition.Threads => "threads",
        Condition.Player => "player",
        Condition.Program => "editing program",
        Condition.ProgramSetting => "editing program:",
        Condition.Kernel => "kernel",
        Condition.UsableCores => "usable cores",
        Condition.OtherLoad => "other programs",
        Condition.Power => "powered by",
        Condition.Governor => "clock governor",
        Condition.DecodedOn => "decoding of",
        Condition.Cached => "footage of",
        Condition.EffectRanOn => "place of",
        Condition.PresenterPriority => "priority of the display thread",
        Condition.PagesOpen => "pages open",
        Condition.Processor => "processor",
        Condition.Cores => "cores",
        Condition.MeasuredCosts => "measured costs",
        Condition.MemoryInUse => "memory in use before",
        Condition.Graphics => "graphics",
        Condition.MediaEngine => "media engine",
        Condition.MediaDrive => "media drive",
        Condition.OtherDrives => "other drives",
        Condition.Cooling => "cooling",
        Condition.PowerLimit => "power limit",
        Condition.OperatingSystem => "operating system",
        _ => "graphics driver of",
    };

    /// <summary>Where a run's work was done, a sentence; empty where it is unknown.</summary>
    public static string Of(WhereWorkRan where) => string.Join("; ", new[]
    {
        where.Decoding.Count == 0 ? null : $"decoding on {Listed(where.Decoding)}",
        where.Effects.Count == 0 ? null : $"effects on {Listed(where.Effects)}",
    }.OfType<string>()) is { Length: > 0 } said ? $"{char.ToUpperInvariant(said[0])}{said[1..]}." : string.Empty;

    private static string Passages(IReadOnlyList<int> places) =>
        $"{(places.Count == 1 ? "passage" : "passages")} {Listed([.. places.Select(place => $"{place + 1}")])}";

    private static string Listed(IReadOnlyList<string> texts) =>
        texts.Count == 1 ? texts[0] : $"{string.Join(", ", texts.SkipLast(1))} and {texts[^1]}";
}
