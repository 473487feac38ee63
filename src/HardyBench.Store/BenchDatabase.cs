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
            run.Property(r => r.Ending).HasConversion<string>();
            run.Property(r => r.Scale).HasConversion<string>();
            run.Property(r => r.Policy).HasConversion<string>();
            run.Property(r => r.Side).HasConversion<string>();
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
            passage.Property(p => p.Verdict).HasConversion<string>();
            passage.Property(p => p.Limiter).HasConversion<string>();
            passage.Property(p => p.SecondLimiter).HasConversion<string>();
        });
        modelBuilder.Entity<MarkEntity>(mark =>
        {
            mark.HasKey(m => m.Id);
            mark.Property(m => m.Kind).HasConversion<string>();
        });
        modelBuilder.Entity<TrialEntity>(trial =>
        {
            trial.HasKey(t => t.Id);
            trial.Property(t => t.Kind).HasConversion<string>();
            trial.Property(t => t.State).HasConversion<string>();
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
    public static bool IsStorageFailure(Exception failure) =>
        failure is DbUpdateException or IOException or Microsoft.Data.Sqlite.SqliteException or UnauthorizedAccessException;

    /// <summary>Brings the file to the present schema, after a copy of it was made beside it; makes it if there is none.</summary>
    /// <exception cref="NewerDataException">It was written by a newer product; nothing was changed.</exception>
    public async Task MigrateAsync(CancellationToken stop)
    {
        await using var database = CreateDbContext();
        if (File.Exists(file))
        {
            var known = database.Database.GetMigrations().ToHashSet();
            var applied = (await database.Database.GetAppliedMigrationsAsync(stop)).ToList();
            if (applied.Exists(migration => !known.Contains(migration)))
            {
                throw new NewerDataException();
            }

            if (applied.Count > 0 && applied.Count < known.Count)
            {
                await CopyToAsync($"{file}.before-{known.Max()![..8]}-{DateTimeOffset.UtcNow:yyyyMMddHHmmss}", stop);
            }
        }

        await database.Database.MigrateAsync(stop);
        // Readers never wait for the writer, and what a commit said is on the drive even if the power fails.
        await database.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL;", stop);
    }

    /// <summary>Whether the file is a database of this product.</summary>
    public async Task<bool> IsBenchAsync(CancellationToken stop)
    {
        await using var database = CreateDbContext();
        try
        {
            return (await database.Database.GetAppliedMigrationsAsync(stop)).Any();
        }
        catch (SqliteException)
        {
            return false;
        }
    }

    /// <summary>Makes the file whole by itself, without another beside it, and lets go of it.</summary>
    public async Task SettleAsync(CancellationToken stop)
    {
        await using var connection = new SqliteConnection($"Data Source={file};Pooling=False");
        await connection.OpenAsync(stop);
        await using var command = connection.CreateCommand();
        command.CommandText = "PRAGMA journal_mode=DELETE";
        await command.ExecuteNonQueryAsync(stop);
        SqliteConnection.ClearAllPools();
    }

    /// <summary>Writes a whole and sound copy, also while others write.</summary>
    /// <param name="copy">A file that is replaced.</param>
    public async Task CopyToAsync(string copy, CancellationToken stop)
    {
        var fresh = copy + ".fresh";
        File.Delete(fresh);
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

/// <summary>The data was written by a newer product.</summary>
public sealed class NewerDataException() : Exception("The data was written by a newer product.");

/// <summary>For the tool that writes migrations.</summary>
public sealed class DesignTimeFactory : IDesignTimeDbContextFactory<BenchDatabase>
{
    public BenchDatabase CreateDbContext(string[] args) => new BenchDatabaseFactory("design-time.db").CreateDbContext();
}
