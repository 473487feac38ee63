using HardyBench.Workbench.Data;

namespace HardyBench.Cli;

/// <summary>What the command's exit code says.</summary>
public static class ExitCodes
{
    /// <summary>Done.</summary>
    public const int Done = 0;

    /// <summary>An unexpected error.</summary>
    public const int Failed = 1;

    /// <summary>The command line cannot be understood.</summary>
    public const int Usage = 2;

    /// <summary>There is no such timeline, machine or run.</summary>
    public const int Unknown = 3;

    /// <summary>A clip is missing or damaged, or the plan cannot be played; the rest was kept.</summary>
    public const int Media = 4;

    /// <summary>The data folder cannot be used or is full.</summary>
    public const int DataFolder = 5;

    /// <summary>The port is in use.</summary>
    public const int Port = 6;

    /// <summary>The decoding libraries are missing.</summary>
    public const int NoPlayer = 7;

    /// <summary>A file that was to be read is not what it should be; nothing was changed.</summary>
    public const int Input = 8;

    /// <summary>Stopped by the person, as shells number it.</summary>
    public const int Stopped = 130;
}
