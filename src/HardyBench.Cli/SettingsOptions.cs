using System.CommandLine;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Workbench;

namespace HardyBench.Cli;

/// <summary>How something is to be played, as options of the command line.</summary>
internal static class SettingsOptions
{
    private static readonly Option<PreviewScale> Scale = Choices.Option("--scale", "Preview scale:", PreviewScale.Full);

    private static readonly Option<PlayingPolicy> Policy = Choices.Option(
        "--policy",
        "Keep time (drop frames), or keep frames (let the clock slip):",
        PlayingPolicy.KeepTime
    );

    private static readonly Option<bool> Automatic = new("--automatic-scale") { Description = "Aid: the preview scale halves when too many frames are missed." };
    private static readonly Option<Proxies> Proxy = Choices.Option("--proxies", "Aid, play smaller copies of the clips:", Proxies.None);
    private static readonly Option<bool> PreRenders = new("--pre-renders")
    {
        Description = "Aid: play passages that were rendered beforehand from their renders.",
    };
    private static readonly Option<FileCache> Cache = Choices.Option("--cache", "Footage in the file cache:", FileCache.AsFound);
    private static readonly Option<string?> DecodeOn = new("--decode-on")
    {
        Description = "Decode on 'processor' only, or on this machine on one device, by FFmpeg's name, such as vaapi. Without it: the machine's own devices.",
    };
    private static readonly Option<string?> EffectsOn = new("--effects-on")
    {
        Description = "Apply effects on 'processor' only, or on this machine on one device, such as opencl.",
    };
    private static readonly Option<int?> Threads = new("--threads") { Description = "Threads for each decoder and for effects." };
    private static readonly Option<int> LookAhead = new("--look-ahead")
    {
        Description = "Look-ahead: frames with effects applied that may wait to be shown.",
        DefaultValueFactory = _ => new PlaybackSettings().LookAhead,
    };
    private static readonly Option<string?> Program = new("--program")
    {
        Description = "On a stand-in: play as this editing program, by its id (hardybench programs).",
    };
    private static readonly Option<double> OthersCores = new("--others-cores")
    {
        Description = "On a stand-in: cores that other programs keep busy.",
    };
    private static readonly Option<double> OthersMemory = new("--others-memory")
    {
        Description = "On a stand-in: GB of memory that other programs hold.",
    };
    private static readonly Option<PreviewScale?> ToScale = Choices.Option<PreviewScale>("--to-scale", "The second side's scale:");
    private static readonly Option<Proxies?> ToProxies = Choices.Option<Proxies>("--to-proxies", "The second side's proxies:");
    private static readonly Option<FileCache?> ToCache = Choices.Option<FileCache>("--to-cache", "The second side's file cache:");
    private static readonly Option<string?> ToEffectsOn = new("--to-effects-on")
    {
        Description = "The second side's device for effects.",
    };
    private static readonly Option<string?> ToProgram = new("--to-program") { Description = "The second side's editing program." };
    private static readonly Option<int?> ToThreads = new("--to-threads") { Description = "The second side's threads." };

    /// <summary>Those of one run.</summary>
    public static IReadOnlyList<Option> All =>
        [Scale, Policy, Automatic, Proxy, PreRenders, Cache, DecodeOn, EffectsOn, Threads, LookAhead, Program, OthersCores, OthersMemory];

    /// <summary>Those that say what a comparison changes.</summary>
    public static IReadOnlyList<Option> Changed => [ToScale, ToProxies, ToCache, ToEffectsOn, ToThreads, ToProgram];

    /// <exception cref="UnknownThingException">There is no such editing program.</exception>
    public static async Task<PlaybackSettings> ReadAsync(ParseResult parsed, Bench bench) => new PlaybackSettings(
        parsed.GetValue(Scale),
        parsed.GetValue(Policy),
        parsed.GetValue(LookAhead),
        Pictures: false,
        parsed.GetValue(Automatic),
        parsed.GetValue(Proxy),
        parsed.GetValue(PreRenders),
        parsed.GetValue(Cache),
        parsed.GetValue(DecodeOn),
        parsed.GetValue(EffectsOn),
        parsed.GetValue(Threads))
    {
        Program = parsed.GetValue(Program) is { } id ? await bench.Programs.FindAsync(id) : null,
        Others = (parsed.GetValue(OthersCores), parsed.GetValue(OthersMemory)) is (var cores, var memory) && (cores, memory) != (0, 0)
            ? new OtherPrograms(cores, memory)
            : null,
    };

    /// <exception cref="UnknownThingException">There is no such editing program.</exception>
    public static async Task<PlaybackSettings> ReadChangedAsync(ParseResult parsed, PlaybackSettings settings, Bench bench) => settings with
    {
        Scale = parsed.GetValue(ToScale) ?? settings.Scale,
        Proxies = parsed.GetValue(ToProxies) ?? settings.Proxies,
        Cache = parsed.GetValue(ToCache) ?? settings.Cache,
        EffectsOn = parsed.GetValue(ToEffectsOn) ?? settings.EffectsOn,
        Threads = parsed.GetValue(ToThreads) ?? settings.Threads,
        Program = parsed.GetValue(ToProgram) is { } id ? await bench.Programs.FindAsync(id) : settings.Program,
    };
}
