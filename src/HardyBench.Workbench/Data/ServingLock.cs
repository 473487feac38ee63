using System.Globalization;
using HardyBench.Store;

namespace HardyBench.Workbench.Data;

/// <summary>Says which server has a data folder, so that two never play the same trial. The system releases it with the program, however
/// that ends.</summary>
public sealed class ServingLock : IDisposable
{
    private const string Name = "serving.lock", Words = "serving";

    private readonly FileLock held;

    private ServingLock(FileLock held) => this.held = held;

    /// <exception cref="DataFolderException">Another server has it.</exception>
    public static ServingLock Take(DataFolder folder)
    {
        var words = Path.Combine(folder.Path, Words);
        if (FileLock.TryTake(Path.Combine(folder.Path, Name), shared: false) is not { } held)
        {
            throw new DataFolderException(
                $"Another server has the data in {folder.Path} ({(File.Exists(words) ? File.ReadAllText(words) : "just started")}). "
                    + "Nothing was started. Use that one, or choose another folder with --data.");
        }

        File.WriteAllText(
            words,
            string.Create(CultureInfo.InvariantCulture, $"process {Environment.ProcessId} since {DateTimeOffset.UtcNow:yyyy-MM-dd HH:mm} UTC"));
        return new ServingLock(held);
    }

    public void Dispose() => held.Dispose();
}
