using System.Buffers;
using System.Globalization;
using System.Text;
using Microsoft.Win32.SafeHandles;

namespace HardyBench.Telemetry;

/// <summary>The kernel's text files under a root, so that recorded trees can stand in for a machine.
/// Whatever is missing or cannot be read is null.</summary>
public sealed class SystemFiles(string root)
{
    /// <summary>The files of this machine.</summary>
    public static SystemFiles Live { get; } = new("/");

    /// <param name="path">Below the root, without a leading slash.</param>
    public string? ReadText(string path)
    {
        using var file = Keep(path);
        return file.ReadText();
    }

    /// <summary>A file that is read again and again and stays open meanwhile, which costs a fifth of opening it each time.</summary>
    public OpenSystemFile Keep(string path) => new(Path.Combine(root, path));

    public double? ReadNumber(string path) =>
        double.TryParse(ReadText(path), NumberStyles.Float, CultureInfo.InvariantCulture, out var number) ? number : null;

    /// <summary>Names in a folder, sorted; none when it is missing.</summary>
    public IReadOnlyList<string> Names(string folder)
    {
        try
        {
            return
            [
                .. Directory.EnumerateFileSystemEntries(Path.Combine(root, folder)).Select(Path.GetFileName).Order(StringComparer.Ordinal)!,
            ];
        }
        catch (Exception gone) when (gone is IOException or UnauthorizedAccessException)
        {
            return [];
        }
    }
}

/// <summary>An open file of the kernel, whose text is made again by each reading.</summary>
public sealed class OpenSystemFile : IDisposable
{
    private readonly SafeFileHandle? file;

    internal OpenSystemFile(string path)
    {
        try
        {
            file = File.OpenHandle(path, share: FileShare.ReadWrite | FileShare.Delete);
        }
        catch (Exception gone) when (gone is IOException or UnauthorizedAccessException)
        {
            file = null;
        }
    }

    /// <summary>The whole text as it is now; null when the file was missing or cannot be read any more.</summary>
    public string? ReadText()
    {
        if (file is null)
        {
            return null;
        }

        // Read dozens of times in every sample, so without the buffers of a stream and its reader.
        var (bytes, length) = (ArrayPool<byte>.Shared.Rent(4096), 0);
        try
        {
            for (int read; (read = RandomAccess.Read(file, bytes.AsSpan(length), length)) > 0;)
            {
                length += read;
                if (length == bytes.Length)
                {
                    var longer = ArrayPool<byte>.Shared.Rent(bytes.Length * 2);
                    bytes.AsSpan(0, length).CopyTo(longer);
                    ArrayPool<byte>.Shared.Return(bytes);
                    bytes = longer;
                }
            }

            return Encoding.UTF8.GetString(bytes, 0, length);
        }
        catch (Exception gone) when (gone is IOException or UnauthorizedAccessException)
        {
            return null;
        }
        finally
        {
            ArrayPool<byte>.Shared.Return(bytes);
        }
    }

    public void Dispose() => file?.Dispose();
}
