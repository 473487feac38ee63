using System.Net.Sockets;
using HardyBench.Core.Findings;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Core.Trials;
using HardyBench.Store.Entities;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace HardyBench.Store;

/// <summary>The tables of a data folder.</summary>
public sealed class BenchDatabase(DbContextOptions<BenchDatabase> options) : DbContext(options)
{
    public DbSet<RunEntity> Runs => Set<RunEntity>();

    public DbSet<RunPieceEntity> RunPieces => Set<RunPieceEntity>();

    public DbSet<MarkEntity> Marks => Set<MarkEntity>();

    public DbSet<TrialEntity> Trials => Set<TrialEntity>();

    public DbSet<DocumentEntity> Documents => Set<DocumentEntity>();

    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<RunEntity>(run =>
        {
            run.HasKey(r => r.Id);
            run.HasIndex(r => new { r.TimelineDigest, r.MachineId });
            run.Property(r => r.Ending).HasConversion(new KnownNames<RunEnding>(RunEnding.Unreadable));
            run.Property(r => r.Scale).HasConversion(new KnownNames<PreviewScale>(PreviewScale.Full));
            run.Property(r => r.Policy).HasConversion(new KnownNames<PlayingPolicy>(PlayingPolicy.KeepTime));
            run.Property(r => r.Side).HasConversion(new KnownNamesOrNone<Side>());
            run.HasIndex(r => r.TrialId);
            run.HasMany(r => r.Marks).WithOne().HasForeignKey(m => m.RunId);
            run.HasMany(r => r.Passages).WithOne().HasForeignKey(p => p.RunId);
            run.HasOne(r => r.Line).WithOne().HasForeignKey<RunLineEntity>(line => line.RunId);
        });
        modelBuilder.Entity<RunLineEntity>(line =>
        {
            line.ToTable("RunLines");
            line.HasKey(l => l.RunId);
        });
        modelBuilder.Entity<RunPieceEntity>(piece =>
        {
            piece.HasKey(p => new { p.RunId, p.Sequence });
            piece.HasOne<RunEntity>().WithMany().HasForeignKey(p => p.RunId);
        });
        modelBuilder.Entity<PassageEntity>(passage =>
        {
            passage.HasKey(p => new { p.RunId, p.Index });
            passage.Property(p => p.Verdict).HasConversion(new KnownNamesOrNone<Verdict>());
            passage.Property(p => p.Limiter).HasConversion(new KnownNamesOrNone<Limiter>());
            passage.Property(p => p.SecondLimiter).HasConversion(new KnownNamesOrNone<Limiter>());
        });
        modelBuilder.Entity<MarkEntity>(mark =>
        {
            mark.HasKey(m => m.Id);
            mark.Property(m => m.Kind).HasConversion(new KnownNames<MarkKind>(default));
        });
        modelBuilder.Entity<TrialEntity>(trial =>
        {
            trial.HasKey(t => t.Id);
            trial.Property(t => t.Kind).HasConversion(new KnownNames<TrialKind>(default));
            trial.Property(t => t.State).HasConversion(new KnownNames<TrialState>(TrialState.Failed));
        });
        modelBuilder.Entity<DocumentEntity>().HasKey(d => new { d.Kind, d.Id });
    }
}

/// <summary>Opens databases by file.</summary>
public sealed class BenchDatabaseFactory(string file, params IInterceptor[] interceptors) : IDbContextFactory<BenchDatabase>
{
    public BenchDatabase CreateDbContext() => new(new DbContextOptionsBuilder<BenchDatabase>()
        .UseSqlite($"Data Source={file};Default Timeout=30").AddInterceptors(interceptors).Options);

    /// <summary>Whether a failure is the database's: the drive is full, gone or not ours to write to.</summary>
    public static bool IsStorageFailure(Exception failure) => failure is DbUpdateException or SqliteException || IsDriveFailure(failure);

    /// <summary>Whether a failure is one of the drive, which may pass: it is full, read only, gone or busy. Others, as of what was to be
    /// written, come again however often it is tried.</summary>
    public static bool IsDriveFailure(Exception failure) => failure switch
    {
        SqliteException sqlite => sqlite.SqliteErrorCode is Busy or Locked or ReadOnly or InputOutput or Full or CannotOpen,
        DbUpdateException { InnerException: { } cause } => IsDriveFailure(cause),
        IOException { HResult: BrokenPipe } or IOException { InnerException: SocketException } => false,
        IOException or UnauthorizedAccessException => true,
        _ => false,
    };

    // Result codes of SQLite, https://sqlite.org/rescode.html
    private const int Busy = 5, Locked = 6, ReadOnly = 8, InputOutput = 10, Full = 13, CannotOpen = 14;

    // EPIPE of errno(3): the other end of a pipe has ended, which is no drive.
    private const int BrokenPipe = 32;

    /// <summary>Brings the file to the present schema, after a copy of it was made beside it; makes it if there is none. One process at a
    /// time does so; the others wait. Nothing that ends it half-way keeps the next start from it.</summary>
    /// <exception cref="NewerDataException">It was written by a newer product; nothing was changed.</exception>
    public async Task MigrateAsync(CancellationToken stop)
    {
        using var alone = await FileLock.TakeAsync(file + ".migrating", shared: false, stop);
        MakePrivate(file);
        await using var database = CreateDbContext();
        var known = database.Database.GetMigrations().ToHashSet();
        var applied = (await database.Database.GetAppliedMigrationsAsync(stop)).ToList();
        if (applied.Exists(migration => !known.Contains(migration)))
        {
            throw new NewerDataException();
        }

        if (applied.Count < known.Count)
        {
            if (applied.Count > 0)
            {
                await CopyToAsync($"{file}.before-{known.Max()![..8]}-{DateTimeOffset.UtcNow:yyyyMMddHHmmss}", stop);
                RemoveOldCopies("before-2*");
            }

            await RemoveStaleLockAsync(database, stop);
            await database.Database.MigrateAsync(stop);
        }

        // Readers never wait for the writer, and what a commit said is on the drive even if the power fails.
        await database.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL;", stop);
    }

    /// <summary>Copies of one kind that are kept beside the file; older ones are deleted.</summary>
    private const int CopiesKept = 3;

    /// <summary>Deletes all but the newest copies that were made beside the file.</summary>
    /// <param name="kind">Which, as a pattern that follows the file's name; names rise with time.</param>
    public void RemoveOldCopies(string kind)
    {
        var copies = Directory.GetFiles(Path.GetDirectoryName(Path.GetFullPath(file))!, $"{Path.GetFileName(file)}.{kind}")
            .OrderDescending(StringComparer.Ordinal);
        foreach (var old in copies.Skip(CopiesKept))
        {
            File.Delete(old);
        }
    }

    /// <summary>The migration tool marks its work with a row and waits while there is one. The row outlives a process that was killed;
    /// whoever holds the file lock knows that such a row is stale.</summary>
    private static async Task RemoveStaleLockAsync(BenchDatabase database, CancellationToken stop)
    {
        const string Table = "__EFMigrationsLock";
        var there = await database.Database
            .SqlQuery<int>($"SELECT COUNT(*) AS Value FROM sqlite_master WHERE type = 'table' AND name = {Table}").SingleAsync(stop);
        if (there > 0)
        {
            await database.Database.ExecuteSqlRawAsync("DELETE FROM __EFMigrationsLock", stop);
        }
    }

    /// <summary>What people measured is nobody else's to read. Files that the database puts beside this one take over its rights.</summary>
    private static void MakePrivate(string file)
    {
        const UnixFileMode OwnerOnly = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        if (!File.Exists(file))
        {
            // An empty file is an empty database.
            new FileStream(file, new FileStreamOptions { Mode = FileMode.CreateNew, Access = FileAccess.Write, UnixCreateMode = OwnerOnly })
                .Dispose();
        }

        Array.ForEach([.. new[] { file, file + "-wal", file + "-shm" }.Where(File.Exists)], part => File.SetUnixFileMode(part, OwnerOnly));
    }

    /// <summary>Why the file is no sound database of this product: damaged, something else, or with triggers, views or tables in it that
    /// this product never makes and that could act on their own. Null where it is one.</summary>
    public async Task<string?> ProblemAsync(CancellationToken stop)
    {
        try
        {
            await using var connection = new SqliteConnection($"Data Source={file};Pooling=False");
            await connection.OpenAsync(stop);
            if (await FirstAsync("SELECT name FROM sqlite_master WHERE type = 'table' AND name = '__EFMigrationsHistory'") is null)
            {
                return "it is not a copy of Hardy Bench data";
            }

            // The sound answer is the one word "ok".
            if (await FirstAsync("PRAGMA integrity_check(1)") is not "ok" and var damage)
            {
                return $"it is damaged: {damage}";
            }

            return await FirstAsync(
                """
                SELECT 'it contains the ' || type || ' ' || name || ', which is not part of Hardy Bench data' FROM sqlite_master
                WHERE type IN ('trigger', 'view') OR sql LIKE 'CREATE VIRTUAL%' LIMIT 1
                """);

            async Task<string?> FirstAsync(string sql)
            {
                await using var command = connection.CreateCommand();
                command.CommandText = sql;
                return await command.ExecuteScalarAsync(stop) as string;
            }
        }
        catch (SqliteException failure)
        {
            return $"it cannot be read as a database: {failure.Message}";
        }
    }

    /// <summary>Makes the file complete without another beside it, and closes it.</summary>
    public async Task SettleAsync(CancellationToken stop)
    {
        // Connections that wait to be used again hold the file.
        SqliteConnection.ClearAllPools();
        await using var connection = new SqliteConnection($"Data Source={file};Pooling=False");
        await connection.OpenAsync(stop);
        await using var command = connection.CreateCommand();
        command.CommandText = "PRAGMA journal_mode=DELETE";
        await command.ExecuteNonQueryAsync(stop);
    }

    /// <summary>Writes a whole and sound copy, also while others write.</summary>
    /// <param name="copy">A file that is replaced.</param>
    public async Task CopyToAsync(string copy, CancellationToken stop)
    {
        var fresh = copy + ".fresh";
        File.Delete(fresh);
        MakePrivate(fresh);
        await using (var source = new SqliteConnection($"Data Source={file};Mode=ReadWrite;Default Timeout=30;Pooling=False"))
        {
            await source.OpenAsync(stop);
            await using var command = source.CreateCommand();
            command.CommandText = "VACUUM INTO $copy";
            command.Parameters.AddWithValue("$copy", fresh);
            await command.ExecuteNonQueryAsync(stop);
        }

        File.Move(fresh, copy, overwrite: true);
    }
}

/// <summary>The data was written by a newer version.</summary>
public sealed class NewerDataException() : Exception("The data was written by a newer version.");

/// <summary>For the tool that writes migrations.</summary>
public sealed class DesignTimeFactory : IDesignTimeDbContextFactory<BenchDatabase>
{
    public BenchDatabase CreateDbContext(string[] args) => new BenchDatabaseFactory("design-time.db").CreateDbContext();
}
