using System.Globalization;

namespace HardyBench.Workbench.Data;

/// <summary>Says which server has a data folder, so that two never play the same trial. The system lets go of it with the program, however
/// that ends.</summary>
public sealed class ServingLock : IDisposable
{
    private const string Name = "serving.lock", Words = "serving";

    private readonly FileStream held;

    private ServingLock(FileStream held) => this.held = held;

    /// <exception cref="DataFolderException">Another server has it.</exception>
    public static ServingLock Take(DataFolder folder)
    {
        var words = Path.Combine(folder.Path, Words);
        try
        {
            var held = new FileStream(Path.Combine(folder.Path, Name), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
            File.WriteAllText(
                words,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"process {Environment.ProcessId} since {DateTimeOffset.UtcNow:yyyy-MM-dd HH:mm} UTC"
                )
            );
            return new ServingLock(held);
        }
        catch (IOException taken)
        {
            throw new DataFolderException(
                $"Another server has the data in {folder.Path} ({(File.Exists(words) ? File.ReadAllText(words) : "just started")}). "
                    + "Nothing was started. Use that one, or choose another folder with --data.",
                taken);
        }
    }

    public void Dispose() => held.Dispose();
}
