using System.Globalization;
using System.Security.Cryptography;
using System.Text.Json;
using System.Text.RegularExpressions;
using HardyBench.Core;
using HardyBench.Core.Footage;
using HardyBench.Formats.Files;
using HardyBench.Formats.Json;

namespace HardyBench.Media.Clips;

/// <summary>A file that was offered and not taken.</summary>
public sealed record RefusedFile(string Name, string Why);

/// <summary>Clips that people bring along: a folder of the data folder, in which a file lies under its checksum, and a folder that they
/// have watched, whose files are used where they lie. A note for each, always in the data folder, holds what was found and what people
/// call it, so that each is inspected once.</summary>
/// <param name="folder">Holds files imported, and the notes.</param>
/// <param name="watched">Another folder, or null.</param>
public sealed partial class OwnClips(string folder, string? watched) : IDisposable
{
    /// <summary>Longer titles are cut.</summary>
    public const int LongestTitle = 200;

    private const string NoteSuffix = ".clip.json";
    private static readonly JsonSerializerOptions Json = BenchJson.Options;

    /// <summary>Endings under which files are kept; any other becomes that of its container.</summary>
    private static readonly string[] Endings =
        [
            ".mp4",
            ".mov",
            ".mkv",
            ".webm",
            ".mxf",
            ".avi",
            ".ts",
            ".mts",
            ".m2ts",
            ".mpg",
            ".m4v",
            ".flv",
            ".wmv",
            ".ogv",
            ".ivf",
            ".dv",
            ".gif",
            ".png",
            ".jpg",
            ".jp2",
            ".tif",
            ".dpx",
            ".exr",
            ".bmp",
            ".y4m",
        ];

    private readonly Lock gate = new();
    private readonly SemaphoreSlim looking = new(1);
    private readonly Dictionary<string, (Clip Clip, string File)> byId = [];
    private List<RefusedFile> refused = [];

    public string Folder { get; } = folder;

    public string? Watched { get; } = watched;

    /// <summary>The clips found by the last look, by id.</summary>
    public IReadOnlyDictionary<string, Clip> Clips
    {
        get
        {
            lock (gate)
            {
                return byId.ToDictionary(entry => entry.Key, entry => entry.Value.Clip);
            }
        }
    }

    /// <summary>Files that the last look could not take, with the reason.</summary>
    public IReadOnlyList<RefusedFile> Refused
    {
        get
        {
            lock (gate)
            {
                return [.. refused];
            }
        }
    }

    /// <summary>Where a clip's file lies, or null when it is none of these.</summary>
    public string? FileOf(string id)
    {
        lock (gate)
        {
            return byId.TryGetValue(id, out var known) ? known.File : null;
        }
    }

    /// <summary>Looks through both folders. New and changed files are inspected; one bad file never keeps the others out.</summary>
    public async Task LookAsync(CancellationToken stop)
    {
        await looking.WaitAsync(stop);
        try
        {
            await LookInTurnAsync(stop);
        }
        finally
        {
            looking.Release();
        }
    }

    /// <summary>Takes a file in: inspects it, then moves it here under its checksum. A file that is refused stays where it is.</summary>
    /// <param name="name">What people call it; the clip's title.</param>
    /// <exception cref="MediaException">It is no clip, or one that is here already; the message says so.</exception>
    public async Task<Clip> TakeAsync(string file, string name, CancellationToken stop)
    {
        var title = TitleOf(name);
        var report = await ClipProbe.LookAsync(file, title, stop);
        var digest = await Checksums.OfFileAsync(file, stop);
        await looking.WaitAsync(stop);
        try
        {
            Directory.CreateDirectory(Folder);
            if (Clips.Values.FirstOrDefault(clip => clip.Sha256 == digest) is { } same)
            {
                throw new MediaException($"{title} is the same clip as {same.Title}, which was imported before.");
            }

            var target = Path.Combine(Folder, digest + EndingOf(title, report));
            var clip = ClipOf(report, title, digest);
            // The note first: a note without its file is nothing, a file without its note would lose its name.
            var info = new FileInfo(file);
            await WriteAsync(NoteOf(target), new Note(info.Length, info.LastWriteTimeUtc, clip, null, title), stop);
            File.Move(file, target, overwrite: true);
            lock (gate)
            {
                byId[clip.Id] = (clip, target);
            }

            return clip;
        }
        finally
        {
            looking.Release();
        }
    }

    /// <summary>Lets a clip go that was taken in here; does nothing for any other.</summary>
    public void Remove(string id)
    {
        lock (gate)
        {
            if (byId.TryGetValue(id, out var known) && IsHere(known.File))
            {
                byId.Remove(id);
                File.Delete(known.File);
                File.Delete(NoteOf(known.File));
            }
        }
    }

    /// <summary>Whether a clip was taken in here, and can be deleted.</summary>
    public bool IsImported(string id) => FileOf(id) is { } file && IsHere(file);

    private bool IsHere(string file) => Path.GetDirectoryName(Path.GetFullPath(file)) == Path.GetFullPath(Folder);

    /// <summary>Deletes an imported clip; its file stays on the drive until it is removed for good.</summary>
    /// <exception cref="MediaException">It is none of those taken in here.</exception>
    public void Delete(string id)
    {
        lock (gate)
        {
            if (!byId.TryGetValue(id, out var known) || !IsHere(known.File))
            {
                throw new MediaException(
                    $"{(byId.TryGetValue(id, out var other) ? other.Clip.Title : id)} was not imported here, so it cannot be "
                        + "deleted here."
                );
            }

            var (file, folder) = (known.File, Directory.CreateDirectory(DeletedFolder).FullName);
            // Whenever it is interrupted the file has its note beside it: a note without its file is nothing.
            var note = Path.Combine(folder, Path.GetFileName(NoteOf(file)));
            File.Copy(NoteOf(file), note, overwrite: true);
            File.SetLastWriteTimeUtc(note, DateTime.UtcNow);
            File.Move(file, Path.Combine(folder, Path.GetFileName(file)), overwrite: true);
            File.Delete(NoteOf(file));
            byId.Remove(id);
        }
    }

    /// <summary>Restores a clip that was deleted.</summary>
    /// <exception cref="MediaException">It is not there any more.</exception>
    public Clip Restore(string id)
    {
        lock (gate)
        {
            var (note, file, clip) = DeletedClips().FirstOrDefault(one => one.Clip.Id == id);
            if (clip is null)
            {
                throw new MediaException($"{id} was removed for good. Import its file again.");
            }

            var target = Path.Combine(Folder, Path.GetFileName(file));
            File.Copy(note, NoteOf(target), overwrite: true);
            File.Move(file, target, overwrite: true);
            File.Delete(note);
            byId[id] = (clip, target);
            return clip;
        }
    }

    /// <summary>Clips that were deleted and can be restored, each with the moment it was deleted.</summary>
    public IReadOnlyList<(Clip Clip, DateTimeOffset At)> Deleted
    {
        get
        {
            lock (gate)
            {
                return [.. DeletedClips().Select(one => (one.Clip, new DateTimeOffset(File.GetLastWriteTimeUtc(one.Note), TimeSpan.Zero)))];
            }
        }
    }

    /// <summary>Removes what was deleted before a moment.</summary>
    public void RemoveDeletedBefore(DateTime beforeUtc)
    {
        lock (gate)
        {
            foreach (var (note, file, _) in DeletedClips().Where(one => File.GetLastWriteTimeUtc(one.Note) < beforeUtc))
            {
                File.Delete(file);
                File.Delete(note);
            }
        }
    }

    private string DeletedFolder => Path.Combine(Folder, ".aside");

    /// <summary>Deleted clips that are whole: a note with its file.</summary>
    private IEnumerable<(string Note, string File, Clip Clip)> DeletedClips()
    {
        foreach (var note in Directory.Exists(DeletedFolder) ? Directory.GetFiles(DeletedFolder, "*" + NoteSuffix) : [])
        {
            var file = note[..^NoteSuffix.Length];
            if (File.Exists(file) && Read(note)?.Clip is { } clip)
            {
                yield return (note, file, clip);
            }
        }
    }

    public void Dispose() => looking.Dispose();

    /// <summary>A file's name with what cannot be shown written out.</summary>
    public static string Shown(string name) => string.Concat(name.Select(letter =>
        char.IsControl(letter) ? string.Create(CultureInfo.InvariantCulture, $"\\u{(int)letter:x4}") : $"{letter}"));

    private async Task LookInTurnAsync(CancellationToken stop)
    {
        var (found, bad) = (new Dictionary<string, (Clip Clip, string File)>(), new List<RefusedFile>());
        foreach (
            var (file, isWatched) in FilesIn(Folder)
                .Select(file => (file, false))
                .Concat(Watched is null ? [] : FilesIn(Watched).Select(file => (file, true)))
        )
        {
            try
            {
                Refuse(file, isWatched);
                var clip = await KnownAsync(file, stop);
                if (!found.TryAdd(clip.Id, (clip, file)))
                {
                    throw new MediaException($"{Path.GetFileName(file)} is the same clip as {found[clip.Id].Clip.Title}.");
                }
            }
            catch (Exception failure) when (failure is MediaException or IOException or UnauthorizedAccessException)
            {
                bad.Add(new RefusedFile(Shown(Path.GetFileName(file)), failure.Message));
            }
        }

        lock (gate)
        {
            byId.Clear();
            foreach (var (id, known) in found)
            {
                byId[id] = known;
            }

            refused = bad;
        }
    }

    private static IEnumerable<string> FilesIn(string path) => Directory.Exists(path)
        ? Directory
            .EnumerateFiles(path, "*", new EnumerationOptions { IgnoreInaccessible = true, AttributesToSkip = FileAttributes.Hidden })
            .Where(file =>
                !file.EndsWith(NoteSuffix, StringComparison.Ordinal) && !file.EndsWith(WholeFile.Unfinished, StringComparison.Ordinal)
            )
            .Order(StringComparer.Ordinal)
        : [];

    /// <summary>What is not even inspected.</summary>
    private static void Refuse(string file, bool isWatched)
    {
        var name = Path.GetFileName(file);
        if (name.Any(char.IsControl))
        {
            throw new MediaException($"The name '{Shown(name)}' has characters that cannot be shown; rename the file.");
        }

        if (isWatched && name.AsSpan().IndexOfAny("'\"`%") is >= 0 and var sign)
        {
            throw new MediaException(
                $"The name {name} contains {name[sign]}, which has another meaning for programs that read clips; rename the "
                    + "file, or import it."
            );
        }

        // The folder itself may be a link; what lies in it may lead nowhere else, also not through further links.
        if (!RealPath.IsWithin(file, Path.GetDirectoryName(file)!))
        {
            throw new MediaException($"{name} is a link that leads out of its folder; copy the file itself here.");
        }

        // A pipe or a device has no length either, and opening it could wait for ever.
        if (new FileInfo(file).Length == 0)
        {
            throw new MediaException($"{name} is empty.");
        }

        using var readable = File.OpenRead(file);
    }

    private async Task<Clip> KnownAsync(string file, CancellationToken stop)
    {
        var (info, note) = (new FileInfo(file), NoteOf(file));
        var known = Read(note);
        if (
            known is not null
            && known.Length == info.Length
            && known.ChangedUtc == info.LastWriteTimeUtc
            && known.Clip is null or { Track: not null }
        )
        {
            return known.Clip ?? throw new MediaException(known.Refusal!);
        }

        Directory.CreateDirectory(Folder);
        var title = known?.Title ?? Path.GetFileName(file);
        Note fresh;
        try
        {
            var report = await ClipProbe.LookAsync(file, title, stop);
            fresh = new Note(
                info.Length,
                info.LastWriteTimeUtc,
                ClipOf(report, title, await Checksums.OfFileAsync(file, stop)),
                null,
                title
            );
        }
        catch (MediaException refusal)
        {
            fresh = new Note(info.Length, info.LastWriteTimeUtc, null, refusal.Message, title);
        }

        await WriteAsync(note, fresh, stop);
        return fresh.Clip ?? throw new MediaException(fresh.Refusal!);
    }

    /// <summary>Files here have their notes beside them; those of the watched folder are distinguished by a digest of where they
    /// lie.</summary>
    private string NoteOf(string file) =>
        Path.Combine(
            Folder,
            UnderChecksum().IsMatch(Path.GetFileName(file)) && Path.GetDirectoryName(file) == Folder
        ? Path.GetFileName(file) + NoteSuffix
        : $".{Convert.ToHexStringLower(SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(file)))[..16]}{NoteSuffix}");

    private static string TitleOf(string name)
    {
        var title = Path.GetFileName(name.Replace('\\', '/')).Trim();
        if (title.Length == 0 || title is "." or ".." || title.Any(char.IsControl))
        {
            throw new MediaException($"'{Shown(name)}' is not a file name; rename it and import it again.");
        }

        return title.Length <= LongestTitle ? title : title[..LongestTitle];
    }

    private static Clip ClipOf(ProbeReport report, string title, string digest)
    {
        return new Clip(
            $"{Slug.Of(Path.GetFileNameWithoutExtension(title), 60, "clip")}-{digest[..6]}",
            title,
            report.Format,
            report.FrameCount,
            digest,
            report.Profile,
            report.Caveats,
            report.Track
        );
    }

    private static string EndingOf(string title, ProbeReport report)
    {
        var ending = Path.GetExtension(title).ToLowerInvariant();
        return Endings.Contains(ending) ? ending : report.Container[0] switch
        {
            "mov" => ".mp4",
            "matroska" => ".mkv",
            "mpegts" => ".ts",
            "mpeg" => ".mpg",
            "asf" => ".wmv",
            var other when Endings.Contains("." + other) => "." + other,
            _ => ".clip",
        };
    }

    private static async Task WriteAsync(string file, Note note, CancellationToken stop)
    {
        await WholeFile.WriteAsync(file, JsonSerializer.Serialize(note, Json), stop);
    }

    private static Note? Read(string note)
    {
        try
        {
            return File.Exists(note) ? JsonSerializer.Deserialize<Note>(File.ReadAllText(note), Json) : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    [GeneratedRegex(@"^[0-9a-f]{64}\.[0-9a-z]{1,5}$", RegexOptions.CultureInvariant)]
    private static partial Regex UnderChecksum();

    /// <param name="Title">What people call it; null in notes of before titles were kept, where it is the file's name.</param>
    private sealed record Note(long Length, DateTime ChangedUtc, Clip? Clip, string? Refusal, string? Title = null);
}
