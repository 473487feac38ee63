using System.Text.Json;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Formats.Files;
using HardyBench.Formats.Json;

namespace HardyBench.Media.Aids;

/// <summary>Proxies and pre-renders that have been made, each with a note beside it. A file is found by what it was made
/// from, so that an edit, or another clip, leaves it unused instead of wrong.</summary>
/// <param name="path">Where they lie.</param>
/// <param name="clips">The clips themselves.</param>
public sealed class AidFolder(string path, IClipFiles clips) : IClipFiles
{
    /// <summary>Ids of clips that are aids begin so; no other id can, for want of the sign.</summary>
    private const string Mark = "~";

    public string Path { get; } = path;

    /// <inheritdoc />
    public string PathOf(Clip clip)
    {
        if (!clip.Id.StartsWith(Mark, StringComparison.Ordinal))
        {
            return clips.PathOf(clip);
        }

        var file = FileOf(clip.Id[Mark.Length..]);
        return File.Exists(file) ? file : throw new MediaException($"{clip.Title} is missing from {Path}. Create it again.");
    }

    /// <summary>The file of an aid by its key, made or not.</summary>
    public string FileOf(string key) => System.IO.Path.Combine(Path, key + ".mov");

    /// <summary>What was made under a key, or null.</summary>
    public AidNote? Find(string key)
    {
        try
        {
            return File.Exists(FileOf(key)) && File.Exists(NoteOf(key))
                ? JsonSerializer.Deserialize<AidNote>(File.ReadAllText(NoteOf(key)), BenchJson.Options)
                : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    /// <summary>Notes a finished file; from then on it is used.</summary>
    public AidNote Note(string key, AidNote note)
    {
        var marked = note with { Clip = note.Clip with { Id = Mark + key } };
        WholeFile.Write(NoteOf(key), JsonSerializer.Serialize(marked, BenchJson.Options));
        return marked;
    }

    /// <summary>Removes an aid; does nothing when there is none.</summary>
    public void Remove(string key)
    {
        File.Delete(NoteOf(key));
        File.Delete(FileOf(key));
    }

    /// <summary>The plan with every aid that its settings ask for and that is made.</summary>
    public PlaybackPlan Apply(PlaybackPlan plan)
    {
        var with = plan.Settings.Proxies == Proxies.None ? plan : plan with
        {
            Clips = plan.Clips.ToDictionary(
                clip => clip.Key,
                clip => Find(ProxyCreator.KeyOf(clip.Value, plan.Settings.Proxies))?.Clip ?? clip.Value),
        };
        if (!plan.Settings.PreRenders)
        {
            return with;
        }

        var renders = plan.Timeline.Passages.Select((_, index) => (Index: index, Note: Find(PreRenderer.KeyOf(plan, index))))
            .Where(render => render.Note is not null).ToList();
        return with with
        {
            Clips = with.Clips.Concat(renders.Select(render => KeyValuePair.Create(render.Note!.Clip.Id, render.Note.Clip)))
                .DistinctBy(clip => clip.Key).ToDictionary(),
            Rendered = renders.ToDictionary(
                render => render.Index,
                render => PreRenderer.PassageOf(plan.Timeline.Passages[render.Index], render.Note!.Clip)
            ),
        };
    }

    private string NoteOf(string key) => FileOf(key) + ".json";
}

/// <summary>What was made and what it cost.</summary>
/// <param name="Took">Time that making it took.</param>
/// <param name="Bytes">Its size.</param>
public sealed record AidNote(Clip Clip, TimeSpan Took, long Bytes);
