using System.Runtime.InteropServices;

namespace HardyBench.Player.Native;

/// <summary>Reading, decoding or treating failed; the message names the thing and says why.</summary>
public sealed class MediaException(string message) : Exception(message)
{
    /// <summary>Passes success on and turns an error code into an exception.</summary>
    /// <param name="doing">What was being done, "opening dance.mp4".</param>
    internal static unsafe int Check(int code, string doing)
    {
        if (code >= 0)
        {
            return code;
        }

        const int Size = 256;
        var text = stackalloc byte[Size];
        NativeMethods.ErrorText(code, text, Size);
        var words = Marshal.PtrToStringUTF8((nint)text)?.Trim() ?? $"code {code}";
        throw new MediaException($"{char.ToUpperInvariant(doing[0])}{doing[1..]} failed: {words}.");
    }
}

/// <summary>The player cannot work on this machine at all; the message says what is missing.</summary>
public sealed class PlayerUnavailableException(string message, Exception? cause = null) : Exception(message, cause);

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
