using System.Globalization;
using System.Text;

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
        // Read dozens of times in every sample, so without the buffers of a stream and its reader.
        try
        {
            using var file = File.OpenHandle(Path.Combine(root, path), share: FileShare.ReadWrite | FileShare.Delete);
            var (bytes, length) = (new byte[4096], 0);
            for (int read; (read = RandomAccess.Read(file, bytes.AsSpan(length), length)) > 0; length += read)
            {
                if (length + read == bytes.Length)
                {
                    Array.Resize(ref bytes, bytes.Length * 2);
                }
            }

            return Encoding.UTF8.GetString(bytes, 0, length);
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
