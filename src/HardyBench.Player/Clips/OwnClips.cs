using System.Globalization;
using System.Security.Cryptography;
using System.Text.Json;
using HardyBench.Core.Footage;
using HardyBench.Formats.Json;
using HardyBench.Player.Native;

namespace HardyBench.Player.Clips;

/// <summary>A file that was offered and not taken.</summary>
public sealed record RefusedFile(string Name, string Why);

/// <summary>Clips that people bring along: a folder of the data folder, and a folder that they have watched. A note beside
/// each (for watched files, in the data folder) holds what was found, so that each is looked into once.</summary>
/// <param name="folder">Holds files brought in, and the notes.</param>
/// <param name="watched">Another folder whose files are used where they lie, or null.</param>
public sealed class OwnClips(string folder, string? watched)
{
    private static readonly JsonSerializerOptions Json = BenchJson.Options;
    private readonly Lock gate = new();
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

    /// <summary>Looks through both folders. New and changed files are looked into; one bad file never keeps the others out.</summary>
    public async Task LookAsync(CancellationToken stop)
    {
        var (found, bad) = (new Dictionary<string, (Clip, string)>(), new List<RefusedFile>());
        foreach (var file in FilesIn(Folder).Concat(Watched is null ? [] : FilesIn(Watched)))
        {
            try
            {
                Refuse(file);
                var clip = await KnownAsync(file, stop);
                found.TryAdd(clip.Id, (clip, file));
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

    /// <summary>Takes a file in: looks into it, then moves it here under its name. A file that is refused stays where it is.</summary>
    /// <exception cref="MediaException">It is no clip; the message says why.</exception>
    public async Task<Clip> TakeAsync(string file, string name, CancellationToken stop)
    {
        var safe = Path.GetFileName(name);
        if (safe.Length == 0 || safe.StartsWith('.') || safe.Any(char.IsControl))
        {
            throw new MediaException($"'{Shown(name)}' is no name for a file; rename it and bring it again.");
        }

        await ClipProbe.LookAsync(file, stop);
        Directory.CreateDirectory(Folder);
        var target = Path.Combine(Folder, safe);
        for (var n = 2; File.Exists(target); n++)
        {
            target = Path.Combine(Folder, string.Create(CultureInfo.InvariantCulture, $"{Path.GetFileNameWithoutExtension(safe)}-{n}{Path.GetExtension(safe)}"));
        }

        File.Move(file, target);
        await LookAsync(stop);
        return Clips.Values.FirstOrDefault(clip => FileOf(clip.Id) == target)
            ?? throw new MediaException($"{safe} is the same clip as one that is here already.");
    }

    /// <summary>A file's name with what cannot be shown written out.</summary>
    public static string Shown(string name) => string.Concat(name.Select(letter =>
        char.IsControl(letter) ? string.Create(CultureInfo.InvariantCulture, $"\\u{(int)letter:x4}") : $"{letter}"));

    private static IEnumerable<string> FilesIn(string path) => Directory.Exists(path)
        ? Directory.EnumerateFiles(path, "*", new EnumerationOptions { IgnoreInaccessible = true, AttributesToSkip = FileAttributes.Hidden })
            .Where(file => !file.EndsWith(NoteSuffix, StringComparison.Ordinal)).Order(StringComparer.Ordinal)
        : [];

    private const string NoteSuffix = ".clip.json";

    /// <summary>What is not even looked into.</summary>
    private static void Refuse(string file)
    {
        var name = Path.GetFileName(file);
        if (name.Any(char.IsControl))
        {
            throw new MediaException($"The name '{Shown(name)}' has characters that cannot be shown; rename the file.");
        }

        var root = Path.GetFullPath(Path.GetDirectoryName(file)!);
        if (File.ResolveLinkTarget(file, returnFinalTarget: true) is { } target
            && !target.FullName.StartsWith(root + Path.DirectorySeparatorChar, StringComparison.Ordinal))
        {
            throw new MediaException($"{name} is a link that leads out of its folder; copy the file itself here.");
        }

        if (new FileInfo(file).Length == 0)
        {
            throw new MediaException($"{name} is empty.");
        }

        using var readable = File.OpenRead(file);
    }

    private async Task<Clip> KnownAsync(string file, CancellationToken stop)
    {
        var info = new FileInfo(file);
        var note = Path.Combine(Folder, NoteName(file));
        if (Read(note) is { } known && known.Length == info.Length && known.ChangedUtc == info.LastWriteTimeUtc)
        {
            return known.Clip ?? throw new MediaException(known.Refusal!);
        }

        Directory.CreateDirectory(Folder);
        Note fresh;
        try
        {
            fresh = new Note(info.Length, info.LastWriteTimeUtc, await ReadClipAsync(file, stop), null);
        }
        catch (MediaException refusal)
        {
            fresh = new Note(info.Length, info.LastWriteTimeUtc, null, refusal.Message);
        }

        await File.WriteAllTextAsync(note + ".part", JsonSerializer.Serialize(fresh, Json), stop);
        File.Move(note + ".part", note, overwrite: true);
        return fresh.Clip ?? throw new MediaException(fresh.Refusal!);
    }

    private static async Task<Clip> ReadClipAsync(string file, CancellationToken stop)
    {
        var report = await ClipProbe.LookAsync(file, stop);
        await using var stream = File.OpenRead(file);
        var digest = Convert.ToHexStringLower(await SHA256.HashDataAsync(stream, stop));
        var stem = string.Concat(Path.GetFileNameWithoutExtension(file).ToLowerInvariant().Select(letter => char.IsAsciiLetterOrDigit(letter) ? letter : '-'));
        return new Clip($"{stem}-{digest[..6]}", Path.GetFileName(file), report.Format, report.FrameCount, digest, report.Profile, report.Caveats);
    }

    private static string NoteName(string file) =>
        $".{Convert.ToHexStringLower(SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(file)))[..16]}{NoteSuffix}";

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

    private sealed record Note(long Length, DateTime ChangedUtc, Clip? Clip, string? Refusal);
}
