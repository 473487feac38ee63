using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Exports;
using HardyBench.Media.Clips;
using HardyBench.Media.Commands;
using static System.FormattableString;

namespace HardyBench.Media.Exports;

/// <summary>Writes a film to a file, and looks whether the file is right.</summary>
public static class ExportFile
{
    /// <summary>The end of the name of a file with an export.</summary>
    public static string Extension(Export export) => export.Format == ExportFormat.Rdd36 ? ".mov" : ".mp4";

    /// <summary>Encodes pictures on the processor.</summary>
    /// <param name="raster">Of the pictures.</param>
    /// <param name="deep">Whether they have more than 8 bits a sample.</param>
    /// <param name="pictures">The planes of one after another; made while they are read.</param>
    /// <param name="started">Told of the encoder's process.</param>
    /// <exception cref="MediaException">It failed; the message is the encoder's own reason.</exception>
    /// <exception cref="OperationCanceledException">It was stopped.</exception>
    public static Task WriteAsync(
        Export export, Raster raster, FrameRate rate, bool deep, IEnumerable<ReadOnlyMemory<byte>> pictures, string target,
        Action<int> started, CancellationToken stop)
    {
        var video = new RawVideo(raster, WorkingFormat.Of(deep), rate, pictures);
        return MediaCommand.EncodeAsync(
            MediaCommand.FromPictures(video, Arguments(export.Format, export.Written(raster, rate)), target), video, target, stop, started);
    }

    /// <summary>What is wrong with a file that was written, a sentence; null where nothing is.</summary>
    /// <param name="frames">How many it should have.</param>
    public static async Task<string?> WrongAsync(
        string path, Export export, Raster raster, FrameRate rate, long frames, CancellationToken stop)
    {
        var asked = export.Written(raster, rate);
        try
        {
            var found = await ClipProbe.LookAsync(path, "the export", stop);
            return found.FrameCount != frames ? $"The export has {found.FrameCount} frames instead of {frames}."
                : found.Format.Encoding != asked.Encoding || found.Format.Raster != raster || found.Format.Rate != rate
                    ? $"The export is {found.Format.Encoding} {found.Format.RasterAndRate} and should be {asked.Encoding} "
                        + $"{asked.RasterAndRate}."
                : null;
        }
        catch (MediaException broken)
        {
            return $"The export cannot be played: {broken.Message}";
        }
    }

    /// <summary>Presets at which delivery goes fast and files stay small.</summary>
    private static string[] Arguments(ExportFormat format, ClipFormat written) => Invariant(format switch
    {
        ExportFormat.Avc =>
            $"-an -c:v libx264 -preset faster -g {written.GopLength} -b:v {written.DataRate.BitsPerSecond} -pix_fmt yuv420p -movflags +faststart",
        ExportFormat.Hevc =>
            $"-an -c:v libx265 -preset veryfast -tag:v hvc1 -x265-params log-level=error:keyint={written.GopLength} -b:v {written.DataRate.BitsPerSecond} -pix_fmt yuv420p10le -movflags +faststart",
        ExportFormat.Rdd36 => $"-an -c:v prores_aw -profile:v 2 -pix_fmt yuv422p10le",
        _ => throw new ArgumentOutOfRangeException(nameof(format), format, "There is no encoder for it."),
    }).Split(' ');
}
