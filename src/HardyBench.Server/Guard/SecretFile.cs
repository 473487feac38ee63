namespace HardyBench.Server.Guard;

/// <summary>Files that only the one who runs the server may read.</summary>
internal static class SecretFile
{
    /// <summary>Replaces a file in one step.</summary>
    public static void Write(string file, byte[] bytes)
    {
        var fresh = $"{file}.{Environment.ProcessId}";
        File.Delete(fresh);
        var options = new FileStreamOptions
        {
            Mode = FileMode.CreateNew, Access = FileAccess.Write, UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite,
        };
        using (var written = new FileStream(fresh, options))
        {
            written.Write(bytes);
        }

        File.Move(fresh, file, overwrite: true);
    }
}
