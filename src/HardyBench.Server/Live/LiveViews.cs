using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Core.Trials;
using HardyBench.Core.Wording;
using HardyBench.Server.Runs;
using HardyBench.Store;

namespace HardyBench.Server.Live;

/// <summary>How many runs are judged again by changed rules.</summary>
/// <param name="Of">All of them; 0 where the rules are those of every run.</param>
public sealed record JudgingView(int Done, int Of);

/// <summary>A play, in progress or just ended.</summary>
/// <param name="RunId">0 until the player has started.</param>
/// <param name="Step">What the run in play stands for in its trial.</param>
/// <param name="StepCount">How many runs the trial takes; null where that depends on how they go.</param>
/// <param name="ByHand">Whether places are asked for, instead of playing through.</param>
/// <param name="Frames">Slots settled so far, or places asked for, of <paramref name="Of"/>.</param>
/// <param name="FromFrame">Where the run in play begins in the timeline.</param>
/// <param name="Teeth">The slots' fates, so that a page that opens late can draw them all.</param>
/// <param name="Problem">Why it could not be played, in words.</param>
/// <param name="Waiting">What comes next, in order.</param>
/// <param name="Notes">What was unfavourable before the first frame of the run in play.</param>
public sealed record PlayView(
    long RunId,
    long TrialId,
    TrialKind Kind,
    string TimelineId,
    string TimelineTitle,
    string MachineId,
    string MachineName,
    PreviewScale Scale,
    IReadOnlyList<string> Differences, string Step, int StepNumber, int? StepCount, bool ByHand, bool Running, long Frames, long Of,
    long FromFrame, double FramesPerSecond, string Teeth, string? Problem, IReadOnlyList<WaitingView> Waiting,
    IReadOnlyList<string> Notes)
{
    /// <summary>Why nothing goes on just now: what else works on this machine, or that the drive is full. Null when nothing is in the
    /// way.</summary>
    public string? WaitsFor { get; init; }

    /// <summary>A trial that is about to begin.</summary>
    internal static PlayView Before(StoredTrial trial, Machine machine) => new(
        0,
        trial.Id,
        trial.Asked.Trial.Kind,
        trial.Asked.Timeline.Id,
        trial.Asked.Timeline.Title,
        machine.Id,
        machine.Name,
        trial.Asked.Settings.Scale,
        trial.Asked.Settings.Differences(), string.Empty, 0, null, trial.Asked.Trial.IsByHand, true, 0,
        trial.Asked.Timeline.FrameCount, 0, trial.Asked.Timeline.Rate.FramesPerSecond, string.Empty, null, [], []);
}

/// <summary>A trial in the queue.</summary>
public sealed record WaitingView(long TrialId, TrialKind Kind, string TimelineTitle, string MachineId, string MachineName)
{
    internal static WaitingView Of(StoredTrial trial, string? machineName) =>
        new(trial.Id, trial.Asked.Trial.Kind, trial.Asked.Timeline.Title, trial.Asked.MachineId, machineName ?? trial.Asked.MachineId);
}

/// <summary>What a play has brought since the last message.</summary>
/// <param name="From">Timeline frame of the first tooth.</param>
/// <param name="Asked">Places asked for since then.</param>
/// <param name="LastLagMs">How long the newest picture asked for took; null without a new one.</param>
/// <param name="Loads">The newest value of each load worth watching.</param>
public sealed record PlayNews(long RunId, int From, string Teeth, int Asked, double? LastLagMs, IReadOnlyList<LoadNow> Loads)
{
    /// <param name="teeth">Of its frames.</param>
    public static PlayNews Of(long runId, RunProgress progress, string teeth) => new(
        runId,
        progress.Frames.Count > 0 ? progress.Frames[0].Frame : 0,
        teeth,
        progress.Lags.Count,
        progress.Lags.Select(lag => lag.Lag?.TotalMilliseconds).LastOrDefault(lag => lag is not null),
        [.. LoadSeries.Of(progress.Loads, TimeSpan.Zero).Where(series => series.Values.Count > 0)
            .Select(series => new LoadNow(series.Group, series.Name, series.Unit, series.Values[^1]))]);
}

/// <summary>A load at this moment.</summary>
public sealed record LoadNow(string Group, string Name, string Unit, double Value);

/// <summary>A small picture of the screen.</summary>
/// <param name="Jpeg">Base64.</param>
public sealed record PlayPicture(long RunId, int Frame, string Jpeg);

/// <summary>How the making of clips stands.</summary>
/// <param name="Clip">The clip in work.</param>
/// <param name="Share">Of all the work, 0 to 1.</param>
/// <param name="SecondsLeft">At the present pace; null in the first seconds.</param>
/// <param name="Problem">Why it failed, in words.</param>
/// <param name="WasCancelled">A person ended it.</param>
public sealed record CreationView(
    bool Running,
    string? Clip,
    int Done,
    int Of,
    double Share,
    double? SecondsLeft,
    string? Problem,
    bool WasCancelled = false
)
{
    /// <summary>Work that has to be done before its pace says anything.</summary>
    private const double MinShareDone = 0.02;

    /// <summary>Seconds left at the present pace; null in the first seconds.</summary>
    /// <param name="share">Of all the work, 0 to 1.</param>
    public static double? Left(TimeSpan spent, double share) => share > MinShareDone ? spent.TotalSeconds / share * (1 - share) : null;
}
