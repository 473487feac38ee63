using System.Text;
using HardyBench.Core;
using HardyBench.Core.Footage;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Building;
using HardyBench.Core.Timelines.Imports;
using HardyBench.Formats.Interchange;
using HardyBench.Formats.Timelines;
using HardyBench.Store;
using HardyBench.Workbench.Clips;

namespace HardyBench.Workbench.Timelines;

/// <summary>What is to be known of one passage while it is written.</summary>
/// <param name="Start">Timecode of its first frame.</param>
/// <param name="Problems">What keeps it from being played.</param>
/// <param name="Remarks">What to know though it can be.</param>
public sealed record PassageReview(string Start, IReadOnlyList<string> Problems, IReadOnlyList<string> Remarks, PassageWeight Asks);

/// <summary>A timeline that came from another program.</summary>
/// <param name="Notes">What could not be carried over.</param>
/// <param name="Missing">Footage for which no clip was found, each with clips of the same format.</param>
public sealed record ImportOutcome(StoredTimeline Stored, IReadOnlyList<string> Notes, IReadOnlyList<MissingFootage> Missing);

/// <summary>Footage without a clip.</summary>
public sealed record MissingFootage(string Key, string Name, IReadOnlyList<string> Substitutes);

/// <summary>Writing, importing and exporting timelines.</summary>
public sealed class TimelineJobs(DocumentStore documents, Func<IReadOnlyDictionary<string, Clip>> clips)
{
    private const int LongestStem = 40, LongestId = 50;

    public async Task<IReadOnlyList<Timeline>> AllAsync() => [.. (await documents.TimelinesAsync()).Select(stored => stored.Timeline)];

    /// <exception cref="UnknownThingException">There is no such timeline.</exception>
    /// <exception cref="TimelineRefusedException">It is stored but cannot be opened.</exception>
    public async Task<StoredTimeline> FindAsync(string id) => await documents.FindTimelineAsync(id)
        ?? throw new UnknownThingException("timeline", id, (await documents.TimelinesAsync()).Select(stored => stored.Timeline.Id));

    /// <summary>A new timeline under an id made from its title.</summary>
    /// <param name="like">A clip to take raster, rate and depth from; null for HD 25.</param>
    public async Task<StoredTimeline> CreateAsync(string title, string? like)
    {
        var format = like is null ? null : clips().Known(like).Format;
        return await AddAsync(new Timeline(
            string.Empty,
            title,
            Even(format?.Raster) ?? Raster.Hd,
            format?.Rate ?? new FrameRate(25),
            [],
            format is { BitDepth: > 8 } ? 10 : null
        )
        );
    }

    /// <summary>A new timeline that stands for a week's work.</summary>
    /// <exception cref="SeriesException">A row cannot be worked with.</exception>
    /// <exception cref="TimelineRefusedException">Its title cannot be kept.</exception>
    public Task<StoredTimeline> WriteWeekAsync(string title, IReadOnlyList<WeekRow> rows) => AddAsync(WorkWeek.Of(title, rows, clips()));

    /// <summary>Timelines that are kept and cannot be read or worked with.</summary>
    public Task<IReadOnlyList<UnreadableTimeline>> UnreadableAsync() => documents.UnreadableAsync();

    /// <summary>Renders have half the colour in each direction, which an odd side cannot be halved for.</summary>
    private static Raster? Even(Raster? raster) =>
        raster is { } odd ? new Raster(Math.Max(2, odd.Width / 2 * 2), Math.Max(2, odd.Height / 2 * 2)) : null;

    /// <summary>Keeps it under its own id where that is free, as when a deleted one is restored; a copy under a new id.</summary>
    /// <exception cref="TimelineRefusedException">It is larger than any that can be worked with, or lacks a part.</exception>
    public async Task<StoredTimeline> AddAsync(Timeline timeline)
    {
        TimelineLimits.Checked(timeline);
        var (taken, deleted) = await documents.TimelineIdsAsync();
        var id = IsId(timeline.Id) && (!taken.Contains(timeline.Id) || deleted.Contains(timeline.Id)) ? timeline.Id
            : Slug.Unused(Slug.Of(timeline.Title, LongestStem, "timeline"), taken.Contains);
        var named = Looping.Within(timeline with { Id = id }, clips());
        return new StoredTimeline(named, await documents.KeepAsync(named, null));
    }

    /// <summary>Whether it could have been made from a title here.</summary>
    private static bool IsId(string id) =>
        id.Length is > 0 and <= LongestId
        && id.All(letter => char.IsAsciiLetterLower(letter) || char.IsAsciiDigit(letter) || letter == '-');

    /// <exception cref="VersionConflictException">It was changed since it was read.</exception>
    /// <exception cref="TimelineRefusedException">It is larger than any that can be worked with, or lacks a part.</exception>
    public Task<int> KeepAsync(Timeline timeline, int version) =>
        documents.KeepAsync(Looping.Within(TimelineLimits.Checked(timeline), clips()), version);

    public Task DeleteAsync(string id) => documents.DeleteTimelineAsync(id, DateTimeOffset.UtcNow);

    public IReadOnlyList<PassageReview> Review(Timeline timeline)
    {
        var known = clips();
        var start = 0L;
        TimelineLimits.Checked(timeline);
        return [.. timeline.Passages.Select(passage => new PassageReview(
            Timecode.Of((start += passage.FrameCount) - passage.FrameCount, timeline.Rate),
            [.. TimelineCheck.ProblemsOf(passage, known).Distinct()],
            [.. TimelineCheck.NotMade(passage, known), .. TimelineCheck.RemarksOn(passage, timeline, known).Distinct()],
            PassageWeight.Of(passage, timeline, known)))];
    }

    /// <exception cref="SeriesException">There is nothing to build from.</exception>
    public IReadOnlyList<Passage> Build(Series series, FrameRate rate) => PassageBuilder.Build(series, rate, clips());

    /// <summary>Reads another program's timeline, links it to clips by name, then by checksum, and keeps it as a new one.</summary>
    /// <param name="fileName">Ends in .otio or .edl.</param>
    /// <param name="rate">For lists that do not say theirs; null for 25.</param>
    /// <exception cref="InterchangeException">It cannot be read.</exception>
    /// <exception cref="OperationCanceledException">Nobody waits for it any more.</exception>
    public async Task<ImportOutcome> ImportAsync(string fileName, string text, FrameRate? rate, CancellationToken stop = default)
    {
        var ending = Path.GetExtension(fileName).ToLowerInvariant();
        var guess = rate is null && ending == ".edl" ? EdlRate.Of(text) : null;
        var imported = ending switch
        {
            ".otio" => OtioReader.Read(text),
            ".edl" => EdlReader.Read(text, rate ?? guess!.Likely, stop),
            var other => throw new InterchangeException($"'{other}' is not a known file type; known: .otio and .edl."),
        };
        var known = clips().Values.ToList();
        var found = imported.Media.ToDictionary(media => media.Key, media => Relinking.Find(media, known));
        var raster = found.Values.FirstOrDefault(clip => clip is not null)?.Format.Raster ?? Raster.Hd;
        var (timeline, notes) = StackCutter.Cut(imported, string.Empty, raster, media => found[media.Key], stop);
        var missing = imported.Media.Where(media => found[media.Key] is null)
            .Select(media => new MissingFootage(media.Key, media.Name, [.. Relinking.Substitutes(media, known).Select(clip => clip.Id)]))
            .ToList();
        string[] assumed = guess is null ? [] : [$"Read at {guess.Likely} frames a second; the list does not state its rate. {guess.Why}"];
        return new ImportOutcome(await AddAsync(timeline), [.. assumed, .. notes], missing);
    }

    /// <param name="format">"otio", "edl" or "json".</param>
    /// <returns>The file's text, and what it could not carry.</returns>
    /// <exception cref="UnknownThingException">There is no such timeline or format.</exception>
    public async Task<(string Text, IReadOnlyList<string> Notes)> ExportAsync(string id, string format)
    {
        var timeline = Looping.Within((await FindAsync(id)).Timeline, clips());
        return format switch
        {
            "otio" => (OtioWriter.Write(timeline, clips()), []),
            "edl" => EdlWriter.Write(timeline, clips()),
            "json" => (TimelineJson.Write(timeline), []),
            _ => throw new UnknownThingException("format", format, ["otio", "edl", "json"]),
        };
    }
}
