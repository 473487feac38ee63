using System.Text.Json.Serialization;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback.Programs;

namespace HardyBench.Core.Playback;

/// <summary>Share of the timeline raster that is processed, on each axis. The value is the divisor.</summary>
public enum PreviewScale
{
    Full = 1,
    Half = 2,
    Quarter = 4,
    Eighth = 8,
}

/// <summary>Whether footage lies in the system's file cache when a run starts.</summary>
public enum FileCache
{
    /// <summary>As it happens to be.</summary>
    AsFound,

    /// <summary>Dropped from the cache before the run.</summary>
    Cold,

    /// <summary>Read through once before the run.</summary>
    Warm,
}

/// <summary>Smaller, all-intra copies played in place of the clips.</summary>
public enum Proxies
{
    None,

    /// <summary>Half the raster on each axis.</summary>
    Half,

    /// <summary>A quarter of it on each axis.</summary>
    Quarter,
}

/// <summary>How a timeline is to be played. The defaults are a bare run: every aid off, on the machine as it is, with its
/// devices.</summary>
/// <param name="LookAhead">Treated frames that may wait for their slots.</param>
/// <param name="Pictures">Whether small pictures go to the page while it plays, which costs some of what is measured.</param>
/// <param name="AutomaticScale">An aid: the scale steps down by itself when frames are dropped.</param>
/// <param name="Proxies">An aid.</param>
/// <param name="PreRenders">An aid: passages that are rendered already are played from their renders.</param>
/// <param name="DecodeOn">Null for the machine's own devices and, for what they refuse, the processor;
/// <see cref="WorkPlace.Processor"/> for nothing else; on a real machine also one device, by FFmpeg's name.</param>
/// <param name="EffectsOn">The same for effects.</param>
/// <param name="Threads">Threads for each decoder and for effects; null for one a usable core.</param>
public sealed record PlaybackSettings(
    PreviewScale Scale = PreviewScale.Full,
    PlayingPolicy Policy = PlayingPolicy.KeepTime,
    int LookAhead = 6,
    bool Pictures = false,
    bool AutomaticScale = false,
    Proxies Proxies = Proxies.None,
    bool PreRenders = false,
    FileCache Cache = FileCache.AsFound,
    string? DecodeOn = null,
    string? EffectsOn = null,
    int? Threads = null)
{
    /// <summary>The editing program that a stand-in plays as; null for the product's own player.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public EditingProgram? Program { get; init; }

    /// <summary>What works beside the player on a stand-in; null for nothing.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public OtherPrograms? Others { get; init; }

    /// <summary>Decoded frames of each layer that may wait for their treatment.</summary>
    public const int DecodeAhead = 4;

    /// <summary>The most treated frames that may wait: above that memory decides and not the machine.</summary>
    public const int MaxLookAhead = 120;

    /// <summary>The most threads that a run may ask for.</summary>
    public const int MaxThreads = 64;

    /// <summary>Whether nothing helps playback along and nothing is taken from it: everything that can move a result is as it
    /// comes.</summary>
    public bool IsBare => this == new PlaybackSettings();

    /// <summary>The same with what the editing program decides in place of what was asked.</summary>
    public PlaybackSettings Effective() => Program is not { } program ? this
        : this with { LookAhead = program.LookAhead, Policy = Policy == PlayingPolicy.Unpaced ? Policy : program.WhenLate };

    /// <summary>What keeps it from being played so: sentences.</summary>
    public IEnumerable<string> Problems()
    {
        foreach (var problem in Program is { } program ? ProgramLimits.Problems(program) : [])
        {
            yield return problem;
        }

        foreach (var problem in Others?.Problems() ?? [])
        {
            yield return problem;
        }

        if (!Enum.IsDefined(Scale) || !Enum.IsDefined(Policy) || !Enum.IsDefined(Proxies) || !Enum.IsDefined(Cache))
        {
            yield return "A setting has an unknown value.";
        }

        if (LookAhead is < 1 or > MaxLookAhead)
        {
            yield return $"The look-ahead is {LookAhead} frames; allowed: 1 to {MaxLookAhead}.";
        }

        if (Threads is < 1 or > MaxThreads)
        {
            yield return $"{Threads} threads were requested; allowed: 1 to {MaxThreads}.";
        }

        foreach (var device in new[] { DecodeOn, EffectsOn }.OfType<string>())
        {
            if (device.Length is 0 or > LongestDevice || !device.All(letter => char.IsAsciiLetterOrDigit(letter) || letter is '-' or '_'))
            {
                yield return "The name of a device has letters and digits only, and not many of them.";
            }
        }
    }

    private const int LongestDevice = 32;

    /// <summary>The raster that effects work on.</summary>
    public Raster ProcessedRaster(Raster timeline) => timeline.DividedBy((int)Scale);
}
