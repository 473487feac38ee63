using HardyBench.Core.Footage;
using HardyBench.Core.Timelines;
using HardyBench.Player.Course;
using HardyBench.Telemetry;

namespace HardyBench.Player.Decoding;

/// <summary>Gives the frames of one layer in order.</summary>
public interface ILayerFrames : IDisposable
{
    /// <summary>Whether a frame was decoded and not taken, or none will be.</summary>
    bool HasFrame { get; }

    /// <summary>Waits for what one frame of the passage shows of the layer.</summary>
    /// <returns>The caller's own reference; null when it is past, or when the layer was disposed.</returns>
    /// <exception cref="MediaException">The clip failed.</exception>
    DecodedFrame? Take(long position);

    /// <summary>A frame of the passage will not be taken: what was decoded for it, and is for none after it, makes room.</summary>
    /// <returns>How long that was read and decoded, and what was passed over earlier and decoded since.</returns>
    TimeSpan PassOver(long position);

    /// <summary>What went wrong so far without ending it, a phrase each.</summary>
    IReadOnlyList<string> Overcome { get; }
}

/// <summary>Opens a clip for decoding on a device, or on the processor (null).</summary>
public delegate ClipDecoder ClipOpener(ClipSource clip, int threads, string? device);

/// <summary>What a layer's decoding goes by.</summary>
public enum DecodingPart
{
    /// <summary>It chooses the frames that are begun.</summary>
    Leads,

    /// <summary>It decodes what was chosen.</summary>
    Follows,

    /// <summary>It decodes every frame from where it is asked for one.</summary>
    Free,
}

/// <summary>Decodes one layer ahead of its treatment on a thread of its own. A slot for which the footage has no picture shows the one
/// before it.</summary>
public sealed class LayerDecoding : ILayerFrames
{
    private readonly PassageCourse course;
    private readonly Layer layer;
    private readonly ClipSource clip;
    private readonly int threads;
    private readonly DecodingPart part;
    private readonly ClipOpener open;
    private readonly FrameHandOver handOver;
    private readonly LayerSteps steps;
    private readonly ManualResetEventSlim opened = new();
    private readonly Thread thread;
    private volatile ClipDecoder? source;

    /// <summary>Starts decoding at once. The decoder is opened on the thread itself, so that the threads it starts
    /// carry the same name and their work is counted as decoding.</summary>
    /// <param name="open">How a clip is opened; null for the usual way.</param>
    /// <exception cref="MediaException">The clip cannot be opened.</exception>
    public LayerDecoding(
        ClipSource clip,
        int threads,
        string? device,
        Layer layer,
        PassageCourse course,
        DecodingPart part = DecodingPart.Leads,
        ClipOpener? open = null
    )
    {
        (this.clip, this.threads, this.layer, this.course, this.part) = (clip, threads, layer, course, part);
        this.open = open ?? ((source, count, on) => new ClipDecoder(source, count, on));
        handOver = new FrameHandOver(clip.Name);
        steps = new LayerSteps(course, clip, part, SourceFrame, handOver);
        thread = new Thread(() => Decode(device)) { Name = ThreadRoles.Decode, IsBackground = true };
        thread.Start();
        opened.Wait();
        if (source is null && handOver.Failure is { } failure)
        {
            throw failure;
        }
    }

    /// <summary>The open clip; its picture format is settled, its frames belong to the thread.</summary>
    public ClipDecoder Source => source!;

    /// <inheritdoc />
    public bool HasFrame => handOver.HasFrame;

    /// <inheritdoc />
    public IReadOnlyList<string> Overcome => handOver.Overcome;

    /// <inheritdoc />
    public DecodedFrame? Take(long position) => TakeSource(SourceFrame(position));

    /// <inheritdoc cref="FrameHandOver.Take" />
    public DecodedFrame? TakeSource(long number) => handOver.Take(number);

    /// <inheritdoc />
    public TimeSpan PassOver(long position) => handOver.PassOverBefore(SourceFrame(position + 1));

    public void Dispose()
    {
        handOver.End();
        source?.GiveUp();
        thread.Join();
        handOver.Dispose();
        steps.Dispose();
        opened.Dispose();
    }

    /// <summary>The source frame due in a frame of the passage.</summary>
    public long SourceFrame(long position) => SourceFrame(position, Source);

    private long SourceFrame(long position, ClipDecoder of) => layer.SourceFrameAt(position, course.Rate, of.Rate);

    /// <summary>The thread's work. Whatever goes wrong on it fails the passage and not the program.</summary>
    private void Decode(string? device)
    {
        ClipDecoder? decoder = null;
        try
        {
            decoder = Begin(0, device);
            var lost = DecodeFrom(decoder, device is not null);
            if (lost is not null)
            {
                decoder.Dispose();
                handOver.LoseDevice($"decoding {clip.Name} on {device} failed: {lost.Message} The processor took over");
                decoder = Begin(steps.Resume, null);
                DecodeFrom(decoder, false);
            }
        }
        catch (MediaException cause)
        {
            Fail(cause);
        }
        catch (Exception cause)
        {
            Fail(new MediaException($"Decoding {clip.Name} failed unexpectedly: {cause.Message}"));
        }
        finally
        {
            decoder?.Dispose();
        }
    }

    private void Fail(MediaException cause)
    {
        handOver.Fail(cause);
        opened.Set();
        if (part == DecodingPart.Leads)
        {
            course.Break();
        }
    }

    /// <summary>Opens the clip and goes to where a frame can be decoded from.</summary>
    /// <param name="from">A source frame; 0 for the layer's first.</param>
    private ClipDecoder Begin(long from, string? device)
    {
        var decoder = open(clip, threads, device);
        try
        {
            steps.Begin(from, decoder);
        }
        catch
        {
            decoder.Dispose();
            throw;
        }

        if (part == DecodingPart.Leads && source is null)
        {
            course.Lead(start => new LayerReferences(decoder.Keys, position => SourceFrame(position, decoder), start, course.FrameCount));
        }

        source = decoder;
        opened.Set();
        return decoder;
    }

    /// <summary>Decodes until the layer is disposed.</summary>
    /// <returns>Why the device cannot go on; null when decoding ended otherwise.</returns>
    private MediaException? DecodeFrom(ClipDecoder decoder, bool onDevice)
    {
        using var watched = FootageReads.OfProgram.Watch(() => decoder.Reading);
        try
        {
            steps.Start(decoder);
            while (handOver.WaitForRoom(() => course.DecodeAhead, LayerSteps.LookAgain))
            {
                steps.Next(decoder);
            }
        }
        catch (MediaException gone) when (onDevice && !handOver.HasEnded)
        {
            return gone;
        }

        return null;
    }
}
