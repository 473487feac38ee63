using HardyBench.Store;

namespace HardyBench.Workbench.Data;

/// <summary>Who uses a data folder. Every program that opens a bench uses it together with others; what replaces its contents uses it
/// alone.</summary>
public static class FolderUse
{
    private const string Name = "in-use.lock";

    /// <summary>Use together with others, until it is disposed or the program ends.</summary>
    /// <exception cref="DataFolderException">Somebody replaces its contents just now.</exception>
    public static IDisposable Together(DataFolder folder) =>
        FileLock.TryTake(Path.Combine(folder.Path, Name), shared: true)
        ?? throw new DataFolderException(
            $"The data in {folder.Path} is being restored from a copy. Nothing was started. Try again when that is done.");

    /// <summary>Waits until no other program opens the folder. Opening brings it up to date and adds what ships, which two must not do at
    /// once.</summary>
    /// <returns>The turn, held until it is disposed.</returns>
    public static async Task<IDisposable> OpeningAsync(DataFolder folder, CancellationToken stop) =>
        await FileLock.TakeAsync(Path.Combine(folder.Path, "opening.lock"), shared: false, stop);

    /// <summary>Use without anybody else where nobody uses it; null where somebody does.</summary>
    public static IDisposable? TryTakeExclusive(DataFolder folder) => FileLock.TryTake(Path.Combine(folder.Path, Name), shared: false);

    /// <summary>Use without anybody else.</summary>
    /// <exception cref="DataFolderException">Another program uses it.</exception>
    public static IDisposable Alone(DataFolder folder) =>
        TryTakeExclusive(folder)
        ?? throw new DataFolderException(
            $"Another program uses the data in {folder.Path}: a server, or a command that plays or imports. Nothing was changed. Wait "
            + "until it has ended or stop it, then try again.");
}
