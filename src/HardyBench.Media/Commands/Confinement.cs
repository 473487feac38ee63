namespace HardyBench.Media.Commands;

/// <summary>Starts programs that read files of strangers so that they can do little else: the launcher beside this program, and what every
/// such program needs of the system.</summary>
public static class Confinement
{
    /// <summary>The launcher.</summary>
    public static string Program { get; } = Path.Combine(AppContext.BaseDirectory, "player", "hardybench-confine");

    /// <summary>What programs and their libraries read to run; no list of passwords and nobody's settings.</summary>
    public static IReadOnlyList<string> System { get; } =
    [
        "/usr", "/lib", "/lib64", "/bin", "/sbin", "/opt", "/etc/ld.so.cache", "/etc/ld.so.conf", "/etc/ld.so.conf.d", "/etc/ld.so.preload",
        "/etc/alternatives", "/etc/OpenCL", "/etc/vulkan", "/etc/glvnd", "/etc/drirc", "/etc/fonts", "/etc/localtime", "/etc/nsswitch.conf",
        "/etc/passwd", "/dev/zero", "/dev/urandom", "/dev/random",
    ];
}
