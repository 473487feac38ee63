using HardyBench.Player.Native;

namespace HardyBench.Player.Playing;

/// <summary>Where shown frames end. There need not be a monitor.</summary>
public interface IScreen
{
    /// <summary>Called on the presenting thread; the picture is let go afterwards.</summary>
    void Show(long frame, FrameHandle picture);
}

/// <summary>A screen that nobody looks at and that costs nothing.</summary>
public sealed class BlankScreen : IScreen
{
    public void Show(long frame, FrameHandle picture)
    {
    }
}
