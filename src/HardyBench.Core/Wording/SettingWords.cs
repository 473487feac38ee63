using System.Globalization;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Exports;
using HardyBench.Core.Playback.Subjects;

namespace HardyBench.Core.Wording;

/// <summary>Settings in words.</summary>
public static class SettingWords
{
    /// <summary>With this the differences begin where an editing program plays.</summary>
    public const string PlaysAs = "as ";

    /// <summary>What differs from the defaults, a phrase each; nothing for a bare run.</summary>
    public static IReadOnlyList<string> Differences(this PlaybackSettings asked) => Differences(asked, Subject.Play);

    /// <summary>What differs from a timeline that is played through bare, a phrase each.</summary>
    public static IReadOnlyList<string> Differences(this RunHeader header) => Differences(header.Settings, header.Subject);

    private static IReadOnlyList<string> Differences(PlaybackSettings asked, Subject subject)
    {
        // The program's name stands for what it decides.
        var settings = asked.Effective();
        var usual = new PlaybackSettings { Program = settings.Program }.Effective();
        string?[] all =
        [
            settings.Program is { } program ? $"{PlaysAs}{program.Name} would play" : null,
            subject is Export export ? $"written as {export.Name}" : null,
            settings.Others is { } others ? OtherProgramsWords(others) : null,
            settings.Scale == PreviewScale.Full ? null : $"{settings.Scale.ToString().ToLowerInvariant()} scale",
            settings.AutomaticScale ? "the scale steps down by itself" : null,
            settings.Proxies == Proxies.None ? null : $"{settings.Proxies.ToString().ToLowerInvariant()}-raster proxies",
            settings.PreRenders ? "pre-renders used" : null,
            settings.Policy == usual.Policy || subject is Export ? null : settings.Policy switch
            {
                PlayingPolicy.KeepFrames => "every frame shown, the clock slips",
                PlayingPolicy.Unpaced => "no clock, every frame as soon as it is ready",
                _ => null,
            },
            settings.Pictures ? "preview pictures on, which cost some of what is measured" : null,
            settings.Cache switch { FileCache.Cold => "footage cold", FileCache.Warm => "footage warm", _ => null },
            IsOnProcessorOnly(settings) ? "processor only" : settings.DecodeOn is { } decoder ? $"decoding on {Only(decoder)}" : null,
            IsOnProcessorOnly(settings) ? null : settings.EffectsOn is { } device ? $"effects on {Only(device)}" : null,
            settings.Threads is { } threads ? $"{threads} threads" : null,
            settings.LookAhead == usual.LookAhead ? null : $"look-ahead {settings.LookAhead}",
        ];
        return [.. all.OfType<string>()];
    }

    private static bool IsOnProcessorOnly(PlaybackSettings settings) =>
        settings is { DecodeOn: WorkPlace.Processor, EffectsOn: WorkPlace.Processor };

    private static string Only(string place) => place == WorkPlace.Processor ? "the processor only" : place;

    private static string OtherProgramsWords(OtherPrograms others) => "beside other programs: " + string.Join(", ", new[]
    {
        others.Cores > 0 ? string.Create(CultureInfo.InvariantCulture, $"{others.Cores:0.#} cores busy") : null,
        others.Gigabytes > 0 ? string.Create(CultureInfo.InvariantCulture, $"{others.Gigabytes:0.#} GB held") : null,
    }.OfType<string>());
}
