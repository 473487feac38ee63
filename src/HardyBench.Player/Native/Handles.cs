using System.Runtime.InteropServices;
using HardyBench.Core.Footage;

namespace HardyBench.Player.Native;

/// <summary>An open clip and its decoder.</summary>
internal sealed class ClipHandle : SafeHandle
{
    public ClipHandle(nint clip) : base(0, ownsHandle: true) => SetHandle(clip);

    public override bool IsInvalid => handle == 0;

    protected override bool ReleaseHandle()
    {
        NativeMethods.ClipClose(handle);
        return true;
    }
}

/// <summary>A configured filter graph.</summary>
internal sealed class GraphHandle : SafeHandle
{
    public GraphHandle(nint graph) : base(0, ownsHandle: true) => SetHandle(graph);

    public override bool IsInvalid => handle == 0;

    protected override bool ReleaseHandle()
    {
        NativeMethods.GraphClose(handle);
        return true;
    }
}

/// <summary>One picture in memory, decoded or treated.</summary>
public sealed class FrameHandle : SafeHandle
{
    internal FrameHandle(nint frame) : base(0, ownsHandle: true) => SetHandle(frame);

    public override bool IsInvalid => handle == 0;

    internal nint Pointer => handle;

    public Core.Footage.Raster Raster
    {
        get
        {
            NativeMethods.FrameAbout(this, out var width, out var height, out _, out _);
            return new Core.Footage.Raster(width, height);
        }
    }

    /// <summary>A second reference to the same picture, released separately.</summary>
    /// <exception cref="MediaException">There is no memory for it.</exception>
    internal FrameHandle Another()
    {
        var copy = NativeMethods.FrameAnother(this);
        return copy != 0 ? new FrameHandle(copy) : throw new MediaException("There is no memory for another reference to a picture.");
    }

    /// <summary>The planes one after another without padding, in the frame's own pixel format.</summary>
    public unsafe byte[] CopyPlanes()
    {
        var bytes = new byte[Outcome.Check(NativeMethods.FrameCopy(this, null, 0), "reading a picture")];
        fixed (byte* start = bytes)
        {
            Outcome.Check(NativeMethods.FrameCopy(this, start, bytes.Length), "reading a picture");
        }

        return bytes;
    }

    /// <summary>A JPEG of the picture, <paramref name="width"/> pixels wide.</summary>
    public unsafe byte[] ToJpeg(int width)
    {
        var bytes = new byte[width * width * 2];
        fixed (byte* start = bytes)
        {
            var size = Outcome.Check(NativeMethods.FrameJpeg(this, width, start, bytes.Length), "drawing a picture");
            return bytes[..size];
        }
    }

    protected override bool ReleaseHandle()
    {
        NativeMethods.FrameFree(handle);
        return true;
    }
}
