using System.Runtime.CompilerServices;
using HardyBench.Media.Clips;

namespace HardyBench.TestSupport;

/// <summary>The small pack, made once for all test projects of a run and handed on by folder name.</summary>
internal static class TestData
{
    private static readonly Lazy<Task<ClipFolder>> Made = new(MakeAsync);

    /// <summary>The made clips.</summary>
    public static Task<ClipFolder> ClipsAsync() => Made.Value;

    /// <summary>The data folder that holds them: $HARDYBENCH_TEST_DATA, else one below the temporary folder.</summary>
    public static string Folder { get; } =
        Environment.GetEnvironmentVariable("HARDYBENCH_TEST_DATA") is { Length: > 0 } named
            ? named
            : Path.Combine(Path.GetTempPath(), "hardybench-test-data");

    /// <summary>A new empty folder, which the caller may leave behind in the temporary folder.</summary>
    public static string NewFolder([CallerMemberName] string name = "") =>
        Directory.CreateTempSubdirectory($"hardybench-{name[..Math.Min(20, name.Length)]}-").FullName;

    /// <summary>A new data folder in which the clips are made already.</summary>
    public static async Task<string> NewDataFolderAsync([CallerMemberName] string name = "")
    {
        var (clips, folder) = (await ClipsAsync(), NewFolder(name));
        Directory.CreateSymbolicLink(Path.Combine(folder, "clips"), clips.Path);
        return folder;
    }

    private static async Task<ClipFolder> MakeAsync()
    {
        var folder = new ClipFolder(Path.Combine(Folder, "clips"), StarterPack.Small);
        await new ClipCreator(folder).MakeAsync(null, null, CancellationToken.None);
        return folder;
    }
}
