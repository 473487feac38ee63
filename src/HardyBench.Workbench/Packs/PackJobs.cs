using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Formats.Interchange;
using HardyBench.Formats.Json;
using HardyBench.Formats.Timelines;
using HardyBench.Media.Clips;
using HardyBench.Workbench.Data;
using HardyBench.Workbench.Timelines;

namespace HardyBench.Workbench.Packs;

/// <summary>Packs out and in: a zip of clips, timelines and a manifest of checksums.</summary>
public sealed class PackJobs(DataFolder folder, ClipFolder clips, TimelineJobs timelines)
{
    private const long LargestText = 8 << 20, MaxText = 32 << 20;
    private const int MaxClips = 2000, MaxTimelines = 500;

    /// <summary>Writes timelines with every clip that they play.</summary>
    /// <exception cref="PackException">A clip has no file yet.</exception>
    public async Task ExportAsync(IReadOnlyList<string> timelineIds, Stream into, CancellationToken stop)
    {
        var packed = new List<Timeline>();
        foreach (var id in timelineIds)
        {
            packed.Add((await timelines.FindAsync(id)).Timeline);
        }

        var known = clips.Clips;
        var wanted = packed.SelectMany(timeline => timeline.ClipIds).Distinct().ToList();
        if (wanted.Find(id => known.GetValueOrDefault(id)?.Sha256 is null) is { } missing)
        {
            throw new PackException($"The clip '{missing}' has no file yet. Create it first, then export the pack again.");
        }

        using var zip = new ZipArchive(into, ZipArchiveMode.Create, leaveOpen: true);
        var (packedClips, packedTimelines) = (new List<PackedClip>(), new List<PackedFile>());
        foreach (var id in wanted)
        {
            var file = clips.PathOf(known[id]);
            var path = $"clips/{id}{Path.GetExtension(file)}";
            await using var entry = zip.CreateEntry(path, CompressionLevel.NoCompression).Open();
            await using var source = File.OpenRead(file);
            await source.CopyToAsync(entry, stop);
            packedClips.Add(new PackedClip(path, known[id]));
        }

        foreach (var timeline in packed)
        {
            var bytes = Encoding.UTF8.GetBytes(TimelineJson.Write(timeline));
            await WriteAsync(zip, $"timelines/{timeline.Id}.json", bytes, stop);
            packedTimelines.Add(new PackedFile($"timelines/{timeline.Id}.json", Convert.ToHexStringLower(SHA256.HashData(bytes))));
        }

        var manifest = new PackManifest(PackManifest.FormatName, TimeProvider.System.GetUtcNow(), packedClips, packedTimelines);
        await WriteAsync(zip, PackManifest.EntryName, JsonSerializer.SerializeToUtf8Bytes(manifest, BenchJson.Options), stop);
    }

    /// <summary>Takes a pack in, after every file in it was checked. Clips that are here already are not taken twice.</summary>
    /// <returns>Ids of the timelines taken in.</returns>
    /// <exception cref="PackException">A file is missing, changed or no pack; nothing was taken in.</exception>
    public async Task<IReadOnlyList<string>> ImportAsync(Stream pack, CancellationToken stop)
    {
        var work = Directory.CreateDirectory(Path.Combine(folder.Incoming, $"pack-{Path.GetRandomFileName()}"));
        try
        {
            using var zip = new ZipArchive(pack, ZipArchiveMode.Read, leaveOpen: true);
            var manifest = await ManifestAsync(zip, stop);
            Check(manifest);
            CheckRoom(zip, manifest);
            var files = new Dictionary<string, string>();
            foreach (var packed in manifest.Clips)
            {
                files[packed.Clip.Id] = await CheckedAsync(zip, packed.Path, packed.Clip.Sha256 ?? string.Empty, work.FullName, stop);
            }

            var read = new List<Timeline>();
            foreach (var packed in manifest.Timelines)
            {
                read.Add(
                    TimelineLimits.Checked(
                        TimelineJson.Read(
                            await File.ReadAllTextAsync(await CheckedAsync(zip, packed.Path, packed.Sha256, work.FullName, stop), stop)
                        )
                    )
                );
            }

            return await TakeAsync(manifest, files, read, stop);
        }
        catch (MediaException refused)
        {
            throw new PackException($"A clip of the pack cannot be played: {refused.Message} Nothing was imported.", refused);
        }
        catch (TimelineRefusedException refused)
        {
            throw new PackException($"A timeline of the pack cannot be saved: {refused.Message}", refused);
        }
        catch (Exception wrong) when (wrong is InvalidDataException or JsonException or InterchangeException or OverflowException)
        {
            throw new PackException($"The file is not a pack: {wrong.Message} Nothing was imported.", wrong);
        }
        finally
        {
            work.Delete(recursive: true);
        }
    }

    private async Task<IReadOnlyList<string>> TakeAsync(
        PackManifest manifest, Dictionary<string, string> files, List<Timeline> read, CancellationToken stop)
    {
        var here = clips
            .Clips.Values.Where(clip => clip.Sha256 is not null)
            .DistinctBy(clip => clip.Sha256)
            .ToDictionary(clip => clip.Sha256!, clip => clip.Id);
        var (renamed, taken, ids) = (new Dictionary<string, string>(), new List<string>(), new List<string>());
        try
        {
            foreach (var packed in manifest.Clips)
            {
                if (here.TryGetValue(packed.Clip.Sha256!, out var same))
                {
                    renamed[packed.Clip.Id] = same;
                    continue;
                }

                // Two entries can be the very same file.
                here[packed.Clip.Sha256!] = renamed[packed.Clip.Id] =
                    (await clips.Own!.TakeAsync(files[packed.Clip.Id], Path.GetFileName(packed.Path), stop)).Id;
                taken.Add(renamed[packed.Clip.Id]);
            }

            await KeepAsync(read, renamed, ids);
            return ids;
        }
        catch
        {
            // Whole or not at all: what was taken before it failed goes again.
            foreach (var id in ids)
            {
                await timelines.DeleteAsync(id);
            }

            taken.ForEach(clips.Own!.Remove);
            throw;
        }
    }

    private async Task KeepAsync(List<Timeline> read, Dictionary<string, string> renamed, List<string> ids)
    {
        foreach (var timeline in read)
        {
            var relinked = timeline with
            {
                Passages = [.. timeline.Passages.Select(passage => passage with
                {
                    Layers =
                    [
                        .. passage.Layers.Select(layer =>
                            layer with
                            {
                                ClipId = renamed.GetValueOrDefault(layer.ClipId, layer.ClipId),
                            }
                        ),
                    ],
                })],
            };
            ids.Add((await timelines.AddAsync(relinked)).Timeline.Id);
        }
    }

    private static async Task<PackManifest> ManifestAsync(ZipArchive zip, CancellationToken stop)
    {
        var entry = zip.GetEntry(PackManifest.EntryName) ?? throw new PackException("The pack has no manifest. Nothing was imported.");
        if (entry.Length > LargestText)
        {
            throw new PackException("The pack's manifest is too large. Nothing was imported.");
        }

        await using var stream = entry.Open();
        var manifest = await JsonSerializer.DeserializeAsync<PackManifest>(stream, BenchJson.Options, stop);
        return manifest is { Format: PackManifest.FormatName, Clips: not null, Timelines: not null }
            ? manifest
            : throw new PackException($"The pack is not of the kind {PackManifest.FormatName}. Nothing was imported.");
    }

    /// <summary>Each file, clip and timeline once, and no more of them than a pack has.</summary>
    private static void Check(PackManifest manifest)
    {
        var paths = manifest.Clips.Select(clip => clip?.Path).Concat(manifest.Timelines.Select(file => file?.Path)).ToList();
        var problem =
            manifest.Clips.Any(clip => clip?.Clip?.Id is null || clip.Path is null || clip.Clip.Sha256 is null)
            || manifest.Timelines.Any(file => file?.Path is null || file.Sha256 is null)
            ? "lacks the name or the checksum of a file"
            : manifest.Clips.Count > MaxClips || manifest.Timelines.Count > MaxTimelines
                ? $"names {manifest.Clips.Count} clips and {manifest.Timelines.Count} timelines; allowed: {MaxClips} and {MaxTimelines}"
                : paths.Count != paths.Distinct().Count() || manifest.Clips.DistinctBy(clip => clip.Clip.Id).Count() != manifest.Clips.Count
                    ? "names a file or a clip more than once"
                    : null;
        if (problem is not null)
        {
            throw new PackException($"The pack's manifest {problem}. Nothing was imported.");
        }
    }

    private void CheckRoom(ZipArchive zip, PackManifest manifest)
    {
        var named = manifest.Clips.Select(clip => clip.Path).Concat(manifest.Timelines.Select(file => file.Path));
        var (needed, free) = (named.Sum(path => zip.GetEntry(path)?.Length ?? 0), folder.Room);
        var texts = manifest.Timelines.Select(file => zip.GetEntry(file.Path)?.Length ?? 0).ToList();
        if (texts.Exists(length => length > LargestText) || texts.Sum() > MaxText)
        {
            throw new PackException("The timelines of the pack are too large. Nothing was saved.");
        }

        if (needed > free)
        {
            throw new PackException(
                $"The pack needs {needed / 1e6:0} MB and {folder.Path} has room for {free / 1e6:0} MB. Nothing was imported."
            );
        }
    }

    /// <summary>Unpacks one file and holds it against its checksum.</summary>
    private static async Task<string> CheckedAsync(ZipArchive zip, string path, string sha256, string work, CancellationToken stop)
    {
        var entry =
            zip.GetEntry(path) ?? throw new PackException($"{OwnClips.Shown(path)} is missing from the pack. Nothing was imported.");
        var file = Path.Combine(work, Path.GetRandomFileName());
        await using (var target = File.Create(file))
        await using (var source = entry.Open())
        {
            // The archive's own figure is only a claim: no more than it says is unpacked.
            var (buffer, left) = (new byte[1 << 16], entry.Length);
            while (await source.ReadAsync(buffer, stop) is > 0 and var read)
            {
                if ((left -= read) < 0)
                {
                    throw new PackException($"{OwnClips.Shown(path)} is larger than the pack says. Nothing was imported.");
                }

                await target.WriteAsync(buffer.AsMemory(0, read), stop);
            }
        }

        return await Checksums.OfFileAsync(file, stop) == sha256
            ? file
            : throw new PackException(
                $"{OwnClips.Shown(path)} was changed since the pack was made: its checksum differs. Nothing was imported."
            );
    }

    private static async Task WriteAsync(ZipArchive zip, string path, byte[] bytes, CancellationToken stop)
    {
        await using var entry = zip.CreateEntry(path).Open();
        await entry.WriteAsync(bytes, stop);
    }
}
