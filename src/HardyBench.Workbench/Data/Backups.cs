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
            throw new DataFolderException($"{file} is there already. Nothing was written; choose another name.");
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

    /// <summary>Puts a copy in place of the database, after it was opened and brought up to date on the side.</summary>
    /// <returns>The file that what was there before is kept as; null where there was nothing.</returns>
    /// <exception cref="DataFolderException">It is no such copy, or a server has the folder; nothing was changed.</exception>
    public static async Task<string?> RestoreAsync(DataFolder folder, string file, CancellationToken stop)
    {
        if (!File.Exists(file))
        {
            throw new DataFolderException($"There is no file {file}. Nothing was changed.");
        }

        using var alone = ServingLock.Take(folder);
        var fresh = folder.Database + ".restoring";
        try
        {
            File.Copy(file, fresh, overwrite: true);
            var restored = new BenchDatabaseFactory(fresh);
            if (!await restored.IsBenchAsync(stop))
            {
                throw new DataFolderException($"{file} is no copy of a bench's data. Nothing was changed.");
            }

            await restored.MigrateAsync(stop);
            await restored.SettleAsync(stop);
            string? kept = null;
            if (File.Exists(folder.Database))
            {
                kept = $"{folder.Database}.before-restore-{DateTimeOffset.UtcNow:yyyyMMdd-HHmmss}";
                await new BenchDatabaseFactory(folder.Database).CopyToAsync(kept, stop);
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
            Remove([.. Directory.EnumerateFiles(folder.Path, Path.GetFileName(fresh) + "*")]);
        }
    }

    private static void Remove(params string[] files) => Array.ForEach(files, File.Delete);
}
