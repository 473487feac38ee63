namespace HardyBench.TestSupport;

/// <summary>Files of the project that tests read.</summary>
internal static class Repository
{
    /// <summary>The project's root folder.</summary>
    public static string Root { get; } = Find();

    public static string PathOf(params string[] parts) => Path.Combine([Root, .. parts]);

    private static string Find()
    {
        var folder = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(folder, "HardyBench.slnx")))
        {
            folder = Path.GetDirectoryName(folder)!;
        }

        return folder;
    }
}
