using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Trials;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Core.Wording;
using HardyBench.Workbench;

namespace HardyBench.Server.Plays;

/// <summary>What somebody wants played. What is left out has its default, so that a timeline alone is a bare run on this
/// machine.</summary>
/// <param name="MachineId">Null for the machine that the server runs on.</param>
/// <param name="Trial">The question, with the parameters of its kind; null to play it once.</param>
/// <param name="AtClock">Whether a stand-in's runs come at the pace of the clock, to be watched; what they bring is the same.</param>
public sealed record PlayRequest(
    string TimelineId, string? MachineId = null, Trial? Trial = null, PlaybackSettings? Settings = null, bool AtClock = false)
{
    internal string On(Bench bench) => MachineId ?? bench.Machines.Host.Id;
}

/// <summary>What a play would be, before it is asked for.</summary>
/// <param name="Differences">What differs from a bare run, a phrase each.</param>
/// <param name="Problem">Why it makes no sense as it stands, or null.</param>
/// <param name="Seconds">How long it takes; null where that depends on how it goes, and for stand-ins.</param>
/// <param name="Change">What the second side of a comparison changes; null for other trials.</param>
/// <param name="Remarks">What to know before it is played: sentences.</param>
public sealed record PlayPreview(
    IReadOnlyList<string> Differences,
    string? Problem,
    double? Seconds,
    string? Change,
    IReadOnlyList<string> Remarks
)
{
    /// <summary>Ids of clips that would be played and can be created first; empty for a stand-in, which needs no files.</summary>
    public IReadOnlyList<string> MissingClips { get; init; } = [];

    public static async Task<PlayPreview> OfAsync(PlayRequest request, Bench bench)
    {
        var settings = request.Settings ?? new PlaybackSettings();
        try
        {
            var plan = new TrialPlan(
                request.Trial ?? new PlayTrial(),
                await bench.Plays.PlanAsync(request.TimelineId, request.On(bench), settings)).Checked();
            return new PlayPreview(
                settings.Differences(), null, plan.Start.Machine.Kind == MachineKind.Real ? plan.Length?.TotalSeconds : null,
                ChangeWords.Of(plan.Trial, settings), plan.Remarks())
            {
                MissingClips = plan.Start.Machine.Kind == MachineKind.Real
                    ? [.. bench.Clips.Missing(plan.Start.PlayedClipIds).Select(recipe => recipe.Id)]
                    : [],
            };
        }
        catch (PlanRefusedException refusal)
        {
            return new PlayPreview(settings.Differences(), refusal.Message, null, null, []);
        }
    }
}
