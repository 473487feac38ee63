namespace HardyBench.Formats.Files;

/// <summary>Writes files that are there whole or not at all: beside their place first, and moved there when done. What was there before
/// stays until then. Whoever looks through a folder meanwhile leaves out what ends in <see cref="Unfinished"/>.</summary>
public static class WholeFile
{
    public const string Unfinished = ".part";

    /// <exception cref="IOException">There is no room, or no such folder; nothing is left behind.</exception>
    /// <exception cref="UnauthorizedAccessException">It must not be written there.</exception>
    public static void Write(string path, string text) => Replace(path, part => File.WriteAllText(part, text));

    /// <inheritdoc cref="Write(string, string)" />
    public static Task WriteAsync(string path, string text, CancellationToken stop) =>
        ReplaceAsync(path, part => File.WriteAllTextAsync(part, text, stop));

    /// <inheritdoc cref="Write(string, string)" />
    public static Task WriteAsync(string path, byte[] bytes, CancellationToken stop) =>
        ReplaceAsync(path, part => File.WriteAllBytesAsync(part, bytes, stop));

    /// <inheritdoc cref="Write(string, string)" />
    /// <param name="write">Writes it all.</param>
    public static Task WriteAsync(string path, Func<Stream, Task> write) => ReplaceAsync(path, async part =>
    {
        await using var stream = File.Create(part);
        await write(stream);
    });

    private static void Replace(string path, Action<string> write)
    {
        var part = PartOf(path);
        try
        {
            write(part);
            File.Move(part, path, overwrite: true);
        }
        finally
        {
            File.Delete(part);
        }
    }

    private static async Task ReplaceAsync(string path, Func<string, Task> write)
    {
        var part = PartOf(path);
        try
        {
            await write(part);
            File.Move(part, path, overwrite: true);
        }
        finally
        {
            File.Delete(part);
        }
    }

    /// <summary>A name of its own each time, so that two at once do not write into each other's.</summary>
    private static string PartOf(string path) => $"{path}.{Guid.NewGuid():N}{Unfinished}";
}
