namespace HardyBench.Telemetry;

/// <summary>Names of the player's threads. The kernel gives a thread's name to the threads it starts, so the decoder's
/// and the filters' own threads carry them too; that is how the load of each kind of work is distinguished.
/// At most 15 characters.</summary>
public static class ThreadRoles
{
    public const string Decode = "hb-decode";

    /// <summary>The AV1 decoder's library names its threads itself.</summary>
    public const string Av1Decode = "dav1d-worker";
    public const string Effects = "hb-effects";
    public const string Present = "hb-present";
    public const string Picture = "hb-picture";
    public const string Sample = "hb-sample";
    public const string Record = "hb-record";
}
