using HardyBench.Core.Footage;
using HardyBench.Core.Timelines.Effects;
using static System.FormattableString;

namespace HardyBench.Core.Timelines.Building;

/// <summary>What is usually done to footage.</summary>
public enum UsualTreatment
{
    /// <summary>Nothing: it is cut.</summary>
    Cut,

    Graded,

    /// <summary>Graded, with a title over it.</summary>
    Titled,

    /// <summary>Graded, with noise reduction.</summary>
    Cleaned,
}

/// <summary>So much of one kind of work comes in a week.</summary>
/// <param name="ClipId">A clip that stands for the format.</param>
/// <param name="Streams">Cameras side by side, 1 for one picture.</param>
/// <param name="Hours">Of footage, a week.</param>
public sealed record WeekRow(string ClipId, UsualTreatment Treatment, int Streams, double Hours);

/// <summary>Writes a timeline that stands for a week's work: a passage for each kind of it, as long as its share of the hours.</summary>
public static class WorkWeek
{
    public const int MaxRows = 40, MaxStreams = 16;

    /// <summary>All hours of a week.</summary>
    public const double MaxHours = 168;

    /// <summary>All passages together last about so long; each at least long enough for a verdict with frames to spare.</summary>
    private const double Seconds = 120, MinSeconds = 4;

    private static readonly Dictionary<UsualTreatment, (string Words, string[] Effects)> Treatments = new()
    {
        [UsualTreatment.Cut] = (string.Empty, []),
        [UsualTreatment.Graded] = (", graded", ["primary-grade"]),
        [UsualTreatment.Titled] = (", graded, with a title", ["primary-grade", "title"]),
        [UsualTreatment.Cleaned] = (", graded, with noise reduction", ["noise-reduction", "primary-grade"]),
    };

    /// <summary>Raster and rate are those that most hours have; 10 bits where any of the footage has more than 8. What is entered twice is
    /// added up.</summary>
    /// <exception cref="SeriesException">A row cannot be worked with; each is named, and nothing is written.</exception>
    public static Timeline Of(string title, IReadOnlyList<WeekRow> rows, IReadOnlyDictionary<string, Clip> clips)
    {
        var problems = rows.Index().SelectMany(row => Problems(row.Item, clips).Select(problem => $"Row {row.Index + 1}: {problem}")).ToList();
        if (rows.Count is 0 or > MaxRows)
        {
            problems.Insert(0, $"A week has 1 to {MaxRows} rows.");
        }

        if (problems.Count > 0)
        {
            throw new SeriesException(string.Join(' ', problems));
        }

        var kinds = rows.GroupBy(row => (row.ClipId, row.Treatment, row.Streams))
            .Select(alike => (Row: alike.First(), Hours: alike.Sum(row => row.Hours), clips[alike.Key.ClipId].Format)).ToList();
        var rate = MostOf(kinds.Select(kind => (kind.Format.Rate, kind.Hours)));
        var all = kinds.Sum(kind => kind.Hours);
        return new Timeline(
            string.Empty, title, Even(MostOf(kinds.Select(kind => (kind.Format.Raster, kind.Hours)))), rate,
            [
                .. kinds.Select(kind => PassageOf(
                    kind.Row, kind.Format,
                    (int)Math.Ceiling(Math.Max(MinSeconds, Seconds * kind.Hours / all) * rate.FramesPerSecond))),
            ],
            kinds.Exists(kind => kind.Format.BitDepth > 8) ? 10 : null);
    }

    /// <summary>What most hours have; the first of those that have as many.</summary>
    private static T MostOf<T>(IEnumerable<(T Of, double Hours)> all) where T : notnull =>
        all.GroupBy(one => one.Of).MaxBy(alike => alike.Sum(one => one.Hours))!.Key;

    private static Raster Even(Raster odd) => new(Math.Max(2, odd.Width / 2 * 2), Math.Max(2, odd.Height / 2 * 2));

    private static Passage PassageOf(WeekRow row, ClipFormat format, int frames)
    {
        var (words, ids) = Treatments[row.Treatment];
        var effects = ids.Select(id => Effect.Of(id) with { Text = id == "title" ? "Title" : null }).ToList();
        var layers = PassageBuilder.Tiles([.. Enumerable.Repeat(row.ClipId, row.Streams)], row.Streams);
        var streams = row.Streams > 1 ? $", {row.Streams} streams" : string.Empty;
        return new Passage($"{format.Encoding}, {format.RasterAndRate}{words}{streams}", frames, layers, effects);
    }

    private static IEnumerable<string> Problems(WeekRow? row, IReadOnlyDictionary<string, Clip> clips)
    {
        if (row is null)
        {
            yield return "it is empty.";
            yield break;
        }

        if (row.ClipId is null || !clips.ContainsKey(row.ClipId))
        {
            yield return $"there is no clip '{row.ClipId}'.";
        }

        if (!Enum.IsDefined(row.Treatment))
        {
            yield return "the treatment is unknown.";
        }

        if (row.Streams is < 1 or > MaxStreams)
        {
            yield return $"1 to {MaxStreams} streams play side by side, not {row.Streams}.";
        }

        if (row.Hours is not (> 0 and <= MaxHours))
        {
            yield return Invariant($"hours of footage a week: more than 0 and at most {MaxHours}, not {row.Hours}.");
        }
    }
}
