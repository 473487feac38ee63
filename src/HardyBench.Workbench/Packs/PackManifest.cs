using HardyBench.Core.Footage;

namespace HardyBench.Workbench.Packs;

/// <summary>What a pack holds, with checksums, so that every machine plays the very same files.</summary>
public sealed record PackManifest(
    string Format,
    DateTimeOffset MadeAt,
    IReadOnlyList<PackedClip> Clips,
    IReadOnlyList<PackedFile> Timelines
)
{
    public const string FormatName = "hardy-bench-pack/1", EntryName = "manifest.json";
}

/// <summary>A file of a pack.</summary>
/// <param name="Path">Within the pack.</param>
public sealed record PackedFile(string Path, string Sha256);

/// <summary>A clip of a pack; the checksum of its file is the clip's own.</summary>
public sealed record PackedClip(string Path, Clip Clip);

/// <summary>The pack cannot be made or read; the message says which file is wrong.</summary>
public sealed class PackException(string message, Exception? cause = null) : Exception(message, cause);
