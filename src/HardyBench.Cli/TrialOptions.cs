using System.CommandLine;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Exports;
using HardyBench.Core.Trials;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Workbench;

namespace HardyBench.Cli;

/// <summary>A kind of trial on the command line.</summary>
/// <param name="Question">A question, as help shows it.</param>
/// <param name="Options">Those of this kind alone.</param>
/// <param name="Read">The trial, from its options and the settings of its first run.</param>
internal sealed record TrialOptions(
    TrialKind Kind, string Question, IReadOnlyList<Option> Options, Func<ParseResult, PlaybackSettings, Bench, Task<Trial>> Read)
{
    private static readonly Option<int> Times = Count("--times", "Runs.");
    private static readonly Option<int> EachFormat = Count("--times", "How often each format is written.");
    private static readonly Option<int> Places = Count("--places", "Places in each passage.");
    private static readonly Option<int> Pairs = Count("--pairs", "Pairs of runs.");

    private static readonly Option<double> Minutes = new("--minutes")
    {
        Description = "No round begins after this time.", DefaultValueFactory = _ => 60,
    };

    private static readonly Option<string?> Without = new("--without")
    {
        Description = "An effect that the second side does not apply.",
    };

    private static readonly Option<ExportFormat?> Format =
        Choices.Option<ExportFormat>("--format", "Only this format, instead of every format and encoder:");

    private static readonly Option<EncoderPlace> Encoder =
        Choices.Option("--encoder", "What encodes that format:", EncoderPlace.Processor);

    public static readonly IReadOnlyList<TrialOptions> All =
    [
        Plain<PlayTrial>("Does it play in real time?"),
        Of(TrialKind.Capacity, "How many frames a second does it get through?", [Times], parsed => new CapacityTrial(parsed.GetValue(Times))),
        Of(TrialKind.Export, "How long does an export take?", [EachFormat, Format, Encoder], parsed =>
            new ExportTrial(parsed.GetValue(EachFormat), parsed.GetValue(Format), parsed.GetValue(Encoder))),
        Of(TrialKind.Repeat, "Is the result repeatable?", [Times], parsed => new RepeatTrial(parsed.GetValue(Times))),
        Plain<ScrubTrial>("Does the picture follow while scrubbing?"),
        Of(TrialKind.StartLag, "How long from the key to a moving picture?", [Places], parsed => new StartLagTrial(parsed.GetValue(Places))),
        Plain<StepDownTrial>("Which is the first preview scale that holds?"),
        Plain<RampTrial>("At which passage does it stop holding?"),
        Plain<HalfRateTrial>("What does half the frame rate do to the load?"),
        Of(TrialKind.Soak, "Does it still hold when it is warm?", [Minutes], parsed => new SoakTrial(parsed.GetValue(Minutes))),
        new(TrialKind.Compare, "Does one change make a difference?", [Pairs, Without, .. SettingsOptions.Changed],
            async (parsed, settings, bench) =>
            {
                var other = await SettingsOptions.ReadChangedAsync(parsed, settings, bench);
                return new CompareTrial(parsed.GetValue(Pairs), other == settings ? null : other, parsed.GetValue(Without));
            }),
    ];

    private static TrialOptions Plain<T>(string question)
        where T : Trial, new() => Of(new T().Kind, question, [], _ => new T());

    private static TrialOptions Of(TrialKind kind, string question, IReadOnlyList<Option> options, Func<ParseResult, Trial> read) =>
        new(kind, question, options, (parsed, _, _) => Task.FromResult(read(parsed)));

    private static Option<int> Count(string name, string about) => new(name) { Description = about, DefaultValueFactory = _ => 3 };
}
