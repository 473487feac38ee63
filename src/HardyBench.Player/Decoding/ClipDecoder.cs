using HardyBench.Core.Footage;
using HardyBench.Player.Native;

namespace HardyBench.Player.Decoding;

/// <summary>One decoded frame of a clip.</summary>
/// <param name="Number">Source frame; it goes on rising when the clip loops.</param>
/// <param name="Read">Time spent reading since the frame before.</param>
/// <param name="Decode">Time spent in the decoder since the frame before.</param>
/// <param name="Latency">From sending its data to the decoder to having it; with frame threads this is longer than
/// the time between frames.</param>
/// <param name="Made">Time spent making it from its neighbours, where the layer is retimed so.</param>
public sealed record DecodedFrame(
    FrameHandle Picture, long Number, TimeSpan Read, TimeSpan Decode, TimeSpan Latency, TimeSpan Made = default) : IDisposable
{
    public void Dispose() => Picture.Dispose();
}

/// <summary>Decodes a clip from its first frame on, round and round. Used by one thread at a time, <see cref="GiveUp"/> and
/// <see cref="Reading"/> excepted.</summary>
public class ClipDecoder : IDisposable
{
    private readonly ClipHandle clip;
    private readonly string name;

    /// <param name="threads">Decoding threads.</param>
    /// <param name="device">Where to decode, by FFmpeg's name; null for the processor. Where it refuses, the processor does it.</param>
    /// <param name="oneByOne">Whether no frame may wait in the decoder for those after it.</param>
    /// <exception cref="MediaException">The file is missing, no clip, or no longer the clip that was inspected.</exception>
    public ClipDecoder(ClipSource source, int threads, string? device = null, bool oneByOne = false)
    {
        name = source.Name;
        var opening = new ClipOpening(
            source.Track?.Index ?? -1, source.Rate?.Numerator ?? 0, source.Rate?.Denominator ?? 0, threads, oneByOne ? 1 : 0,
            source.Track is null ? 0 : 1, source.Track?.HeldBack ?? -1, source.Track?.Start ?? 0, source.FrameCount);
        Outcome.Check(NativeMethods.ClipOpen(source.Path, opening, device, out var handle, out var info), $"opening {name}");
        clip = new ClipHandle(handle);
        (Raster, Rate) = (new Raster(info.Width, info.Height), new FrameRate(info.RateNumerator, info.RateDenominator));
        (FrameCount, FramesAtOnce) = (info.FrameCount, info.FramesAtOnce);
        Keys = source.AllIntra ? KeyFrames.All(info.FrameCount) : source.Track?.Keys is { } known
            ? new KeyFrames([.. known.Select(key => (long)key)], info.FrameCount)
            : IndexedKeys(info);
        GoesOn = !Keys.AllIntra && NativeMethods.ClipGoesOn(clip) != 0;
    }

    public ClipDecoder(string path, int threads, string? device = null, bool oneByOne = false)
        : this(new ClipSource(path), threads, device, oneByOne)
    {
    }

    public Raster Raster { get; }

    public FrameRate Rate { get; }

    /// <summary>Frames of one loop, or 0 when the file does not say.</summary>
    public long FrameCount { get; }

    public KeyFrames Keys { get; }

    /// <summary>Whether <see cref="GoTo"/> a later frame of long-GOP footage leaves in the decoder what it works on, which comes first. In
    /// others it is given up.</summary>
    public bool GoesOn { get; }

    /// <summary>Frames whose data the decoder takes before it gives the first.</summary>
    public int FramesAtOnce { get; }

    /// <summary>The first frame whose data the decoder does not have yet; frame threads work on those before it.</summary>
    public long NextToSend { get; private set; }

    /// <summary>Why the device asked for does not decode this clip, or null. It may still refuse on the first frame.</summary>
    public string? Refusal =>
        System.Runtime.InteropServices.Marshal.PtrToStringUTF8(NativeMethods.ClipRefusal(clip)) is { Length: > 0 } why ? why : null;

    /// <summary>Time spent reading since it was opened, the read under way with it. Not to be asked for once it is disposed.</summary>
    public TimeSpan Reading => Span(NativeMethods.ClipReading(clip));

    /// <summary>What the decoder said of damaged data so far, in words, or null.</summary>
    public string? Damage
    {
        get
        {
            var count = NativeMethods.ClipErrors(clip, out var first);
            return count == 0 ? null
                : $"the decoder reported {(count == 1 ? "an error" : $"{count} errors")} in {name}, from its frame {first} on; what it could decode was shown";
        }
    }

    /// <summary>Waits for the next frame, in the order of showing. Damaged data is gone past where anything can be decoded after it. Where
    /// the file has no picture for a slot, a number is missing.</summary>
    /// <exception cref="MediaException">The file ends too early, its pictures change, or nothing more can be decoded.</exception>
    public virtual DecodedFrame Next()
    {
        var code = NativeMethods.ClipNext(clip, out var frame, out var number, out var nextNumber, out var times);
        Outcome.Check(code, $"playing {name}");
        NextToSend = Math.Max(NextToSend, nextNumber);
        return Decoded(frame, number, times);
    }

    /// <summary>Waits for the next of the frames that the decoder already has the data of, reading nothing more.</summary>
    /// <returns>Null when there is none left. Then it has to <see cref="GoTo"/> a frame that stands alone.</returns>
    /// <exception cref="MediaException">Nothing more can be decoded.</exception>
    public virtual DecodedFrame? NextHeld()
    {
        var code = NativeMethods.ClipNextHeld(clip, out var frame, out var number, out var times);
        return Outcome.Check(code, $"playing {name}") == 0 ? Decoded(frame, number, times) : null;
    }

    private static DecodedFrame Decoded(nint frame, long number, FrameTimes times) => new(
        new FrameHandle(frame), number, Span(times.ReadNanoseconds), Span(times.DecodeNanoseconds), Span(times.LatencyNanoseconds));

    /// <summary>From now on leaves out frames before one that no other refers to; <see cref="long.MaxValue"/> for all such, 0 for
    /// none.</summary>
    public void SkipUnreferencedBefore(long number) => NativeMethods.ClipSkipUnreferenced(clip, number);

    /// <summary>Goes on at a later frame that stands alone. Where all do, those before it that were asked for so come first, and where not,
    /// what the decoder holds is given up.</summary>
    public void GoTo(long number)
    {
        if (Keys.AllIntra)
        {
            NativeMethods.ClipWant(clip, number);
            NextToSend = Math.Max(NextToSend, number + 1);
        }
        else
        {
            NativeMethods.ClipLeap(clip, number);
            NextToSend = number;
        }
    }

    /// <summary>Goes on at a frame that stands alone, backwards or forwards. A file that cannot be sought goes on before it.</summary>
    /// <exception cref="MediaException">The file cannot be read there.</exception>
    public void SeekTo(long number)
    {
        Outcome.Check(NativeMethods.ClipSeek(clip, number), $"seeking in {name}");
        NextToSend = number;
    }

    /// <summary>Lets a call that waits in another thread end soon, with an error. Nothing more can be decoded afterwards.</summary>
    public void GiveUp()
    {
        if (!clip.IsClosed)
        {
            NativeMethods.ClipGiveUp(clip);
        }
    }

    public void Dispose()
    {
        clip.Dispose();
        GC.SuppressFinalize(this);
    }

    private static TimeSpan Span(long nanoseconds) => TimeSpan.FromTicks(nanoseconds / TimeSpan.NanosecondsPerTick);

    private KeyFrames IndexedKeys(ClipInfo info)
    {
        var keys = new long[info.KeyCount];
        return new KeyFrames(keys[..NativeMethods.ClipKeys(clip, keys, keys.Length)], info.FrameCount);
    }
}
