using System.Runtime.InteropServices;

namespace HardyBench.Cli;

/// <summary>What the kernel lets other processes of the same person see of this one.</summary>
internal static partial class OwnProcess
{
    /// <summary>PR_SET_DUMPABLE of prctl(2).</summary>
    private const int SetDumpable = 4;

    /// <summary>Neither this process's environment nor its memory can be read by others, the confined ones that it starts among
    /// them.</summary>
    public static void Hide() => _ = prctl(SetDumpable, 0, 0, 0, 0);

    [DllImport("libc", SetLastError = true)]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int prctl(int option, nuint second, nuint third, nuint fourth, nuint fifth);
}
