using System.Globalization;

namespace HardyBench.Player.Telemetry;

/// <summary>The kernel's text files under a root, so that recorded trees can stand in for a machine.
/// Whatever is missing or cannot be read is null.</summary>
public sealed class SystemFiles(string root)
{
    /// <summary>The files of this machine.</summary>
    public static SystemFiles Live { get; } = new("/");

    /// <param name="path">Below the root, without a leading slash.</param>
    public string? ReadText(string path)
    {
        try
        {
            return File.ReadAllText(Path.Combine(root, path));
        }
        catch (Exception gone) when (gone is IOException or UnauthorizedAccessException)
        {
            return null;
        }
    }

    public double? ReadNumber(string path) =>
        double.TryParse(ReadText(path), NumberStyles.Float, CultureInfo.InvariantCulture, out var number) ? number : null;

    /// <summary>Names in a folder, sorted; none when it is missing.</summary>
    public IReadOnlyList<string> Names(string folder)
    {
        try
        {
            return [.. Directory.EnumerateFileSystemEntries(Path.Combine(root, folder)).Select(Path.GetFileName).Order(StringComparer.Ordinal)!];
        }
        catch (Exception gone) when (gone is IOException or UnauthorizedAccessException)
        {
            return [];
        }
    }
}
