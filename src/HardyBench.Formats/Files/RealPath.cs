namespace HardyBench.Formats.Files;

/// <summary>Where a path really leads, through every link on its way.</summary>
public static class RealPath
{
    /// <summary>As many as the kernel follows (path_resolution(7)).</summary>
    private const int MaxLinks = 40;

    /// <exception cref="IOException">The links lead in a circle, or a part of the path cannot be read.</exception>
    public static string Of(string path)
    {
        var (real, left) = ("/", new Stack<string>(PartsOf(Path.GetFullPath(path)).Reverse()));
        for (var links = 0; left.TryPop(out var part);)
        {
            var next = Path.Combine(real, part);
            if (new FileInfo(next).LinkTarget is not { } target)
            {
                real = next;
                continue;
            }

            if (++links > MaxLinks)
            {
                throw new IOException($"{path} leads through more than {MaxLinks} links.");
            }

            // A link may lead anywhere, and through further links.
            foreach (var more in PartsOf(Path.GetFullPath(target, real)).Reverse())
            {
                left.Push(more);
            }

            real = "/";
        }

        return real;
    }

    /// <summary>Whether a file really lies below a folder.</summary>
    public static bool IsWithin(string file, string folder) =>
        Of(file).StartsWith(Of(folder).TrimEnd('/') + "/", StringComparison.Ordinal);

    private static string[] PartsOf(string path) => path.Split('/', StringSplitOptions.RemoveEmptyEntries);
}
