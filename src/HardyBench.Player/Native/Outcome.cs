using System.Runtime.InteropServices;
using HardyBench.Core.Footage;

namespace HardyBench.Player.Native;

/// <summary>What the native functions answer.</summary>
internal static class Outcome
{
    /// <summary>Passes success on and turns an error code into an exception.</summary>
    /// <param name="doing">What was being done, "opening dance.mp4".</param>
    /// <exception cref="MediaException">It failed.</exception>
    public static unsafe int Check(int code, string doing)
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
