using System.ComponentModel;
using System.Globalization;
using System.Text;
using CliWrap;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;

namespace HardyBench.Media.Commands;

/// <summary>What a command may take before it is ended.</summary>
/// <param name="MemoryBytes">Of address space.</param>
/// <param name="Processor">Processor time, all threads together.</param>
/// <param name="Clock">Time by the clock.</param>
/// <param name="FileBytes">The largest file that it may write; 0 for none.</param>
internal sealed record CommandLimits(long MemoryBytes, TimeSpan Processor, TimeSpan Clock, long FileBytes);

/// <summary>What a command said.</summary>
/// <param name="WasEnded">Whether it took more than its limits; what it said until then is there.</param>
internal sealed record CommandOutcome(int ExitCode, string Output, string Errors, bool WasEnded);

/// <summary>A command with the files that it is handed.</summary>
/// <param name="Arguments">The program's name first.</param>
/// <param name="Reads">The file that it reads; null for none.</param>
/// <param name="Writes">The file that it writes; null for none.</param>
internal sealed record MediaCall(IReadOnlyList<string> Arguments, string? Reads, string? Writes);

/// <summary>Runs FFmpeg's commands in confined processes, each of which can open the files that it is handed and no others. Arguments
/// are only ever a list, so that no name of a file can become one; what a
/// command reads is a file or what is piped to it, in a container that holds pictures itself; and what it takes has limits.</summary>
internal static class MediaCommand
{
    /// <summary>Characters of output, and of errors, that are kept; a command that goes on is ended.</summary>
    private const int MaxCharacters = 8 << 20;

    /// <summary>Of encoding: the largest rasters take some gigabytes in some encoders, and some encoders reserve far more than they
    /// use.</summary>
    private static readonly CommandLimits EncodeLimits = new(64L << 30, TimeSpan.FromHours(24), TimeSpan.FromHours(12), 4L << 40);

    private const string Containers =
        "mov,mp4,m4a,3gp,3g2,mj2,matroska,webm,mpegts,mpeg,mxf,avi,asf,flv,ogg,ivf,dv,png_pipe,jpeg_pipe,j2k_pipe,"
        + "tiff_pipe,dpx_pipe,exr_pipe,bmp_pipe,gif,yuv4mpegpipe,rawvideo";

    /// <summary>Streams without a container: recognised, so that the refusal can say what they are.</summary>
    private const string BareStreams = ",mpegvideo,h264,hevc,m4v,obu,vc1";

    /// <summary>For <c>ffprobe</c>: the arguments that precede those about a file.</summary>
    public static MediaCall ProbeOf(string path, params IEnumerable<string> asked) =>
        new([
            "ffprobe",
            "-v",
            "error",
            "-protocol_whitelist",
            "file",
            "-format_whitelist",
            Containers + BareStreams,
            "-max_streams",
            "64",
            .. asked,
            "-i",
            $"file:{path}",
        ], path, null);

    /// <summary>For <c>ffmpeg</c>: a command that reads a file and writes another.</summary>
    public static MediaCall FromFile(string path, IEnumerable<string> arguments, string target) => new(
        [.. Head, "-protocol_whitelist", "file", "-format_whitelist", Containers, "-i", $"file:{path}", .. arguments, $"file:{target}"],
        path,
        target);

    /// <summary>For <c>ffmpeg</c>: a command that is given raw pictures and writes a file.</summary>
    public static MediaCall FromPictures(RawVideo pictures, IEnumerable<string> arguments, string target) => new(
        [.. Head, "-protocol_whitelist", "pipe", .. pictures.Arguments, "-i", "pipe:0", .. arguments, $"file:{target}"],
        null,
        target);

    private static IReadOnlyList<string> Head => ["ffmpeg", "-nostdin", "-v", "error", "-y"];

    /// <param name="input">Writes what is piped to it; null for nothing.</param>
    /// <param name="started">Told of its process; null for nobody.</param>
    /// <exception cref="PlayerUnavailableException">The program is not installed.</exception>
    /// <exception cref="OperationCanceledException">It was stopped, and has ended.</exception>
    public static async Task<CommandOutcome> RunAsync(
        MediaCall command, CommandLimits limits, Func<Stream, CancellationToken, Task>? input, CancellationToken stop,
        Action<int>? started = null)
    {
        if (!File.Exists(Confinement.Program))
        {
            throw new PlayerUnavailableException(
                $"{Confinement.Program} is missing; without it no file is read. Build the product again.");
        }

        using var ending = CancellationTokenSource.CreateLinkedTokenSource(stop);
        ending.CancelAfter(limits.Clock);
        var (output, errors) = (new StringBuilder(), new StringBuilder());
        // What reads a pipe ends with it; what reads a file is ended with this program.
        string[] watch = input is null ? ["--watch", "1"] : [];
        var run = Cli.Wrap(Confinement.Program)
            .WithArguments([.. Limited(limits), .. Handed(command), .. watch, "--", $"/usr/bin/{command.Arguments[0]}", .. command.Arguments.Skip(1)])
            .WithValidation(CommandResultValidation.None)
            .WithStandardInputPipe(input is null ? PipeSource.Null : PipeSource.Create(input))
            .WithStandardOutputPipe(Into(output, ending))
            .WithStandardErrorPipe(Into(errors, ending));
        try
        {
            var running = run.ExecuteAsync(ending.Token);
            started?.Invoke(running.ProcessId);
            var result = await running;
            return result.ExitCode == NotStarted
                ? throw new PlayerUnavailableException($"The commands ffprobe and ffmpeg are missing; install them with 'make setup'. {errors}")
                : new CommandOutcome(result.ExitCode, output.ToString(), errors.ToString(), result.ExitCode > 128);
        }
        catch (OperationCanceledException) when (!stop.IsCancellationRequested)
        {
            return new CommandOutcome(-1, output.ToString(), errors.ToString(), WasEnded: true);
        }
        catch (Win32Exception missing)
        {
            throw new PlayerUnavailableException($"{Confinement.Program} cannot be started: {missing.Message}", missing);
        }
    }

    /// <summary>Has FFmpeg write a file.</summary>
    /// <param name="pictures">What is piped to it; null where it reads a file.</param>
    /// <param name="target">The file written, for errors.</param>
    /// <param name="started">Told of the encoder's process; null for nobody.</param>
    /// <exception cref="MediaException">It failed; the message is the encoder's own reason.</exception>
    /// <exception cref="OperationCanceledException">It was stopped.</exception>
    public static async Task EncodeAsync(
        MediaCall command, RawVideo? pictures, string target, CancellationToken stop, Action<int>? started = null)
    {
        // It may write this one file, which therefore has to be there.
        await File.WriteAllBytesAsync(target, [], stop);
        var outcome = await RunAsync(command, EncodeLimits, pictures is null ? null : pictures.FeedAsync, stop, started);
        stop.ThrowIfCancellationRequested();
        if (outcome.ExitCode != 0)
        {
            throw new MediaException($"{ReasonOf(outcome, target)}.");
        }
    }

    /// <summary>The line of what a command said that tells most: the last one that names no mere consequence.</summary>
    public static string ReasonOf(CommandOutcome outcome, string path)
    {
        var lines = outcome.Errors.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        var telling = lines.LastOrDefault(line => !line.StartsWith("Conversion failed", StringComparison.Ordinal)) ?? lines.LastOrDefault();
        return telling?.Replace($"file:{path}: ", string.Empty, StringComparison.Ordinal).TrimEnd('.')
            ?? (outcome.WasEnded ? "it took more than its limits" : $"it ended with code {outcome.ExitCode}");
    }

    /// <summary>The launcher's own exit code where it could start nothing.</summary>
    private const int NotStarted = 125;

    private static IEnumerable<string> Limited(CommandLimits limits) =>
    [
        "--as", limits.MemoryBytes.ToString(CultureInfo.InvariantCulture),
        "--cpu", ((long)Math.Ceiling(limits.Processor.TotalSeconds)).ToString(CultureInfo.InvariantCulture),
        "--file", limits.FileBytes.ToString(CultureInfo.InvariantCulture),
    ];

    /// <summary>The one file that it reads and the one that it writes, and what its program needs.</summary>
    private static IEnumerable<string> Handed(MediaCall command) =>
    [
        .. Confinement.System.SelectMany(path => new[] { "--read", path }), "--read", "/proc/self", "--read", "/sys/devices/system/cpu",
        "--device", "/dev/null", .. command.Reads is { } read ? new[] { "--read", read } : [],
        .. command.Writes is { } written ? new[] { "--write", written } : [],
    ];

    /// <summary>Keeps what comes, and ends the command when too much does.</summary>
    private static PipeTarget Into(StringBuilder text, CancellationTokenSource ending) => PipeTarget.Create(async (stream, stop) =>
    {
        using var reader = new StreamReader(stream, Encoding.UTF8, leaveOpen: true);
        var buffer = new char[16384];
        for (int read; (read = await reader.ReadAsync(buffer, stop)) > 0;)
        {
            text.Append(buffer, 0, read);
            if (text.Length > MaxCharacters)
            {
                await ending.CancelAsync();
                return;
            }
        }
    });
}

/// <summary>Pictures without a container, for an encoder.</summary>
/// <param name="PixelFormat">By FFmpeg's name of it.</param>
/// <param name="Pictures">The planes of one picture after another, without padding; made while they are read.</param>
internal sealed record RawVideo(
    Core.Footage.Raster Raster,
    string PixelFormat,
    Core.Footage.FrameRate Rate,
    IEnumerable<ReadOnlyMemory<byte>> Pictures
)
{
    public IReadOnlyList<string> Arguments =>
        ["-f", "rawvideo", "-pix_fmt", PixelFormat, "-s", $"{Raster.Width}x{Raster.Height}", "-r", $"{Rate.Numerator}/{Rate.Denominator}"];

    public async Task FeedAsync(Stream pipe, CancellationToken stop)
    {
        foreach (var picture in Pictures)
        {
            await pipe.WriteAsync(picture, stop);
        }
    }
}
