using HardyBench.Core.Footage;
using HardyBench.Media.Commands;

namespace HardyBench.Media.Clips;

/// <summary>How far the making of clips has come.</summary>
/// <param name="Clip">The clip in work, or null when all are made.</param>
/// <param name="Done">Clips finished, of <paramref name="Of"/>.</param>
/// <param name="Share">Share of all the work that is done, 0 to 1, by pixels.</param>
public sealed record CreationProgress(string? Clip, int Done, int Of, double Share);

/// <summary>Creating clips failed; the message says what was kept and what to do.</summary>
public sealed class CreationException(string message, Exception? cause = null) : Exception(message, cause);

/// <summary>Makes the clips that are missing, one after another, with FFmpeg's encoders.</summary>
public sealed class ClipCreator(ClipFolder folder)
{
    /// <summary>Makes those of the wanted clips that are missing. What is finished stays, whatever happens to the rest.</summary>
    /// <param name="ids">The recipes wanted; null for those of the demo.</param>
    /// <exception cref="CreationException">There is no room, the folder cannot be written, or an encoder failed.</exception>
    /// <exception cref="OperationCanceledException">It was cancelled; nothing half-made is left.</exception>
    public async Task MakeAsync(IReadOnlyList<string>? ids, IProgress<CreationProgress>? progress, CancellationToken stop)
    {
        var missing = folder.Missing(ids);
        CheckRoom(missing);
        var work = missing.Sum(Work);
        var (done, count) = (0.0, 0);
        foreach (var recipe in missing)
        {
            stop.ThrowIfCancellationRequested();
            await MakeAsync(recipe, frame => progress?.Report(
                new CreationProgress(recipe.Id, count, missing.Count, (done + Work(recipe) * frame / recipe.FrameCount) / work)), stop);
            done += Work(recipe);
            count++;
        }

        progress?.Report(new CreationProgress(null, count, missing.Count, 1));
    }

    /// <summary>Pixels to encode; some encoders take several times as long for each.</summary>
    private static double Work(ClipRecipe recipe) =>
        (double)recipe.Raster.Pixels * recipe.FrameCount * recipe.Codec switch
        {
            Codec.Hevc => 5,
            Codec.Jpeg2000 => 12,
            Codec.Av1 => 3,
            _ => 1,
        };

    private async Task MakeAsync(ClipRecipe recipe, Action<int> drawn, CancellationToken stop)
    {
        var file = folder.FileOf(recipe);
        var part = $"{file}.part{Path.GetExtension(file)}";
        try
        {
            var pictures = MasterVideo.For(recipe, drawn);
            await MediaCommand.EncodeAsync(MediaCommand.FromPictures(pictures, Encoders.Arguments(recipe), part), pictures, part, stop);
            var clip = await MeasureAsync(recipe, part, stop);
            File.Move(part, file, overwrite: true);
            folder.Note(recipe, clip);
        }
        catch (Exception failure) when (failure is not OperationCanceledException && !stop.IsCancellationRequested)
        {
            throw new CreationException(
                $"Creating {recipe.FileName} in {folder.Path} failed: {failure.Message.TrimEnd('.')}. Clips created before stay. "
                + "Check the folder and its free space, then create the clips again.",
                failure);
        }
        finally
        {
            DeleteQuietly(part);
        }
    }

    /// <summary>Reads back what the encoder really made.</summary>
    private static async Task<Clip> MeasureAsync(ClipRecipe recipe, string part, CancellationToken stop)
    {
        var report = await ClipProbe.LookAsync(part, recipe.FileName, stop);
        var digest = await Checksums.OfFileAsync(part, stop);
        if (report.FrameCount != recipe.FrameCount)
        {
            throw new MediaException($"The encoder made {report.FrameCount} frames of {recipe.FrameCount}.");
        }

        var rate = new DataRate((long)(new FileInfo(part).Length * 8 / report.Format.Rate.StartOf(report.FrameCount).TotalSeconds));
        return new Clip(
            recipe.Id,
            recipe.Title,
            report.Format with
            {
                DataRate = rate,
            },
            report.FrameCount,
            digest,
            report.Profile,
            Track: report.Track
        );
    }

    private void CheckRoom(IReadOnlyList<ClipRecipe> missing)
    {
        long free;
        try
        {
            Directory.CreateDirectory(folder.Path);
            free = new DriveInfo(folder.Path).AvailableFreeSpace;
        }
        catch (Exception failure) when (failure is IOException or UnauthorizedAccessException)
        {
            throw new CreationException(
                $"The folder {folder.Path} cannot be written: {failure.Message} Choose another with --data.",
                failure
            );
        }

        var needed = missing.Sum(recipe => recipe.EstimatedBytes);
        if (needed > free)
        {
            throw new CreationException(
                $"The clips need about {needed / 1e6:0} MB and {folder.Path} has {free / 1e6:0} MB free. "
                + "Nothing was changed. Free some space or choose another folder with --data.");
        }
    }

    private static void DeleteQuietly(string file)
    {
        try
        {
            File.Delete(file);
        }
        catch (Exception gone) when (gone is IOException or UnauthorizedAccessException)
        {
            // It is marked as a part by its name and is overwritten next time.
        }
    }
}
