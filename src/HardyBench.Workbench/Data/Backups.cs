using HardyBench.Store;

namespace HardyBench.Workbench.Data;

/// <summary>Copies of the database, out and back.</summary>
public static class Backups
{
    /// <returns>Bytes of the copy.</returns>
    /// <exception cref="DataFolderException">It cannot be written, or is there already.</exception>
    public static async Task<long> MakeAsync(DataFolder folder, string file, CancellationToken stop)
    {
        if (File.Exists(file))
        {
            throw new DataFolderException($"{file} already exists. Nothing was written; choose another name.");
        }

        try
        {
            await new BenchDatabaseFactory(folder.Database).CopyToAsync(Path.GetFullPath(file), stop);
            return new FileInfo(file).Length;
        }
        catch (Exception failure) when (BenchDatabaseFactory.IsStorageFailure(failure))
        {
            throw new DataFolderException(
                $"{file} cannot be written: {failure.GetBaseException().Message} The data itself is unchanged.",
                failure
            );
        }
    }

    /// <summary>Puts a copy in place of the database, after it was checked and brought up to date on the side. The copy may have its
    /// write-ahead log beside it.</summary>
    /// <returns>The file that the previous data is kept as; null where there was none.</returns>
    /// <exception cref="DataFolderException">It is no sound copy, or another program uses the folder; nothing was changed.</exception>
    public static async Task<string?> RestoreAsync(DataFolder folder, string file, CancellationToken stop)
    {
        if (!File.Exists(file))
        {
            throw new DataFolderException($"There is no file {file}. Nothing was changed.");
        }

        using var alone = FolderUse.Alone(folder);
        var fresh = folder.Database + ".restoring";
        try
        {
            Remove(Beside(fresh));
            File.Copy(file, fresh);
            if (File.Exists(file + "-wal"))
            {
                File.Copy(file + "-wal", fresh + "-wal");
            }

            var restored = new BenchDatabaseFactory(fresh);
            if (await restored.ProblemAsync(stop) is { } problem)
            {
                throw new DataFolderException($"{file} cannot be restored: {problem}. Nothing was changed.");
            }

            await restored.MigrateAsync(stop);
            await restored.SettleAsync(stop);
            string? kept = null;
            if (File.Exists(folder.Database))
            {
                kept = $"{folder.Database}.before-restore-{DateTimeOffset.UtcNow:yyyyMMdd-HHmmss}";
                var previous = new BenchDatabaseFactory(folder.Database);
                await previous.CopyToAsync(kept, stop);
                previous.RemoveOldCopies("before-restore-*");
            }

            Remove(folder.Database + "-wal", folder.Database + "-shm");
            File.Move(fresh, folder.Database, overwrite: true);
            return kept;
        }
        catch (Exception failure) when (BenchDatabaseFactory.IsStorageFailure(failure) || failure is NewerDataException)
        {
            throw new DataFolderException($"{file} cannot be restored: {failure.GetBaseException().Message} Nothing was changed.", failure);
        }
        finally
        {
            Remove(Beside(fresh));
        }
    }

    private static string[] Beside(string file) => Directory.GetFiles(Path.GetDirectoryName(file)!, Path.GetFileName(file) + "*");

    private static void Remove(params string[] files) => Array.ForEach(files, File.Delete);
}
