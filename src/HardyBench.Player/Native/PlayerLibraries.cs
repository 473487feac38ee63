using System.Runtime.InteropServices;
using HardyBench.Core.Playback;

namespace HardyBench.Player.Native;

/// <summary>The native libraries of the player.</summary>
public static class PlayerLibraries
{
    /// <summary>The libraries that decode and treat, with their versions.</summary>
    /// <exception cref="PlayerUnavailableException">They cannot be loaded.</exception>
    public static string Versions()
    {
        try
        {
            return Marshal.PtrToStringUTF8(NativeMethods.LibraryVersions())!;
        }
        catch (Exception cause) when (cause is DllNotFoundException or EntryPointNotFoundException or BadImageFormatException)
        {
            throw new PlayerUnavailableException(
                "FFmpeg's libraries could not be loaded, so nothing can be played on this machine; stand-ins still can. "
                + "Install them with 'make setup' and start again.",
                cause);
        }
    }
}
