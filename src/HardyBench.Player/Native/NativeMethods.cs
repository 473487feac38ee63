using System.Runtime.InteropServices;

namespace HardyBench.Player.Native;

/// <summary>The functions of native/hardybench.h.</summary>
internal static partial class NativeMethods
{
    private const string Library = "hardybench";

    /// <summary>The graph wants another picture before it gives one.</summary>
    public const int End = 1;

    [LibraryImport(Library, EntryPoint = "hb_library_versions")]
    public static partial nint LibraryVersions();

    [LibraryImport(Library, EntryPoint = "hb_error_text")]
    public static unsafe partial void ErrorText(int code, byte* text, int size);

    [LibraryImport(Library, EntryPoint = "hb_clip_open", StringMarshalling = StringMarshalling.Utf8)]
    public static partial int ClipOpen(string path, in ClipOpening how, string? device, out nint clip, out ClipInfo info);

    [LibraryImport(Library, EntryPoint = "hb_clip_give_up")]
    public static partial void ClipGiveUp(ClipHandle clip);

    [LibraryImport(Library, EntryPoint = "hb_clip_reading")]
    public static partial long ClipReading(ClipHandle clip);

    [LibraryImport(Library, EntryPoint = "hb_clip_keys")]
    public static partial int ClipKeys(ClipHandle clip, [Out] long[] frames, int capacity);

    [LibraryImport(Library, EntryPoint = "hb_clip_next")]
    public static partial int ClipNext(
        ClipHandle clip, out nint frame, out long number, out long nextNumber, out FrameTimes times);

    [LibraryImport(Library, EntryPoint = "hb_clip_goes_on")]
    public static partial int ClipGoesOn(ClipHandle clip);

    /// <returns>1 when there is none.</returns>
    [LibraryImport(Library, EntryPoint = "hb_clip_next_held")]
    public static partial int ClipNextHeld(ClipHandle clip, out nint frame, out long number, out FrameTimes times);

    [LibraryImport(Library, EntryPoint = "hb_clip_skip_unreferenced")]
    public static partial void ClipSkipUnreferenced(ClipHandle clip, long before);

    [LibraryImport(Library, EntryPoint = "hb_clip_want")]
    public static partial void ClipWant(ClipHandle clip, long number);

    [LibraryImport(Library, EntryPoint = "hb_clip_leap")]
    public static partial void ClipLeap(ClipHandle clip, long number);

    [LibraryImport(Library, EntryPoint = "hb_clip_refusal")]
    public static partial nint ClipRefusal(ClipHandle clip);

    [LibraryImport(Library, EntryPoint = "hb_clip_errors")]
    public static partial long ClipErrors(ClipHandle clip, out long first);

    [LibraryImport(Library, EntryPoint = "hb_has_filter", StringMarshalling = StringMarshalling.Utf8)]
    public static partial int HasFilter(string name);

    [LibraryImport(Library, EntryPoint = "hb_clip_seek")]
    public static partial int ClipSeek(ClipHandle clip, long number);

    [LibraryImport(Library, EntryPoint = "hb_device_name")]
    public static partial nint DeviceName(int index);

    [LibraryImport(Library, EntryPoint = "hb_device_try", StringMarshalling = StringMarshalling.Utf8)]
    public static partial int DeviceTry(string device);

    [LibraryImport(Library, EntryPoint = "hb_cache", StringMarshalling = StringMarshalling.Utf8)]
    public static partial int Cache(string path, int warm);

    [LibraryImport(Library, EntryPoint = "hb_cached", StringMarshalling = StringMarshalling.Utf8)]
    public static partial int Cached(string path);

    [LibraryImport(Library, EntryPoint = "hb_frame_about")]
    public static partial void FrameAbout(FrameHandle frame, out int width, out int height, out int pixelFormat, out long moment);

    [LibraryImport(Library, EntryPoint = "hb_clip_close")]
    public static partial void ClipClose(nint clip);

    [LibraryImport(Library, EntryPoint = "hb_graph_open", StringMarshalling = StringMarshalling.Utf8)]
    public static partial int GraphOpen(string description, int inputs, GraphInput[] input, int threads, string? device, out nint graph);

    [LibraryImport(Library, EntryPoint = "hb_graph_give")]
    public static partial int GraphGive(GraphHandle graph, nint[] frames, long position);

    [LibraryImport(Library, EntryPoint = "hb_graph_take")]
    public static partial int GraphTake(GraphHandle graph, out nint treated);

    [LibraryImport(Library, EntryPoint = "hb_graph_close")]
    public static partial void GraphClose(nint graph);

    [LibraryImport(Library, EntryPoint = "hb_frame_free")]
    public static partial void FrameFree(nint frame);

    [LibraryImport(Library, EntryPoint = "hb_frame_another")]
    public static partial nint FrameAnother(FrameHandle frame);

    [LibraryImport(Library, EntryPoint = "hb_frame_copy")]
    public static unsafe partial int FrameCopy(FrameHandle frame, byte* bytes, int size);

    [LibraryImport(Library, EntryPoint = "hb_frame_jpeg")]
    public static unsafe partial int FrameJpeg(FrameHandle frame, int width, byte* bytes, int size);

    [LibraryImport(Library, EntryPoint = "hb_raise_priority")]
    public static partial int RaisePriority();
}

/// <summary>What is not known is 0, the stream −1.</summary>
[StructLayout(LayoutKind.Sequential)]
internal readonly record struct ClipOpening(
    int Stream, int RateNumerator, int RateDenominator, int Threads, int OneByOne, int HasStart, int HeldBack, long Start, long FrameCount);

[StructLayout(LayoutKind.Sequential)]
internal readonly record struct ClipInfo(
    int Width, int Height, int RateNumerator, int RateDenominator, int PixelFormat, int KeyCount, int FramesAtOnce, long FrameCount);

[StructLayout(LayoutKind.Sequential)]
internal readonly record struct GraphInput(int Width, int Height, int PixelFormat, int RateNumerator, int RateDenominator);

[StructLayout(LayoutKind.Sequential)]
internal readonly record struct FrameTimes(long ReadNanoseconds, long DecodeNanoseconds, long LatencyNanoseconds);
