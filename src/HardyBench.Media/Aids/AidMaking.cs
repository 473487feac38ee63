using System.Diagnostics;
using HardyBench.Core.Footage;
using HardyBench.Media.Clips;
using HardyBench.Media.Commands;

namespace HardyBench.Media.Aids;

/// <summary>What making proxies and pre-renders has in common.</summary>
internal static class AidMaking
{
    /// <summary>RDD 36 at its lightest grade but one, which any decoder takes at little cost.</summary>
    public static readonly IReadOnlyList<string> Encoder = ["-an", "-c:v", "prores_aw", "-profile:v", "1", "-pix_fmt", "yuv422p10le"];

    /// <summary>Has FFmpeg write a file, measures it and notes it.</summary>
    /// <param name="what">In words, for errors.</param>
    /// <param name="pictures">What is piped to FFmpeg; null where it reads a file.</param>
    /// <param name="command">What FFmpeg is to do, given the file to write.</param>
    public static async Task<AidNote> MakeAsync(
        AidFolder folder,
        string key,
        string what,
        string title,
        RawVideo? pictures,
        Func<string, MediaCall> command,
        CancellationToken stop
    )
    {
        if (folder.Find(key) is { } made)
        {
            return made;
        }

        var (file, began) = (folder.FileOf(key), Stopwatch.GetTimestamp());
        var part = file + ".part.mov";
        try
        {
            Directory.CreateDirectory(folder.Path);
            await MediaCommand.EncodeAsync(command(part), pictures, part, stop);
            var took = Stopwatch.GetElapsedTime(began);
            var report = await ClipProbe.LookAsync(part, key, stop);
            var (digest, bytes) = (await Checksums.OfFileAsync(part, stop), new FileInfo(part).Length);
            var rate = new DataRate((long)(bytes * 8 / report.Format.Rate.StartOf(report.FrameCount).TotalSeconds));
            File.Move(part, file, overwrite: true);
            return folder.Note(key, new AidNote(
                new Clip(key, title, report.Format with { DataRate = rate }, report.FrameCount, digest, Track: report.Track), took, bytes));
        }
        catch (Exception failure) when (failure is not OperationCanceledException && !stop.IsCancellationRequested)
        {
            throw new CreationException(
                $"Creating {what} in {folder.Path} failed: {failure.Message.TrimEnd('.')}. "
                + $"Nothing else was changed. {(failure is IOException ? "Check the folder and its free space, then try again." : "The passage or the clip itself has to be looked at.")}",
            failure
            );
        }
        finally
        {
            File.Delete(part);
        }
    }
}
