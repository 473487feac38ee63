using System.Globalization;
using HardyBench.Core.Playback;

namespace HardyBench.Server.Runs;

/// <summary>What a reader has to know before trusting a run, in words.</summary>
internal static class RunNotes
{
    private const double BusyFrom = 0.2;

    public static IReadOnlyList<string> Of(Run run) => [.. All(run)];

    private static IEnumerable<string> All(Run run)
    {
        var (settings, conditions) = (run.Header.Settings, run.Header.Conditions);
        if (settings.Scale != PreviewScale.Full)
        {
            yield return $"{settings.Scale.ToString().ToLowerInvariant()} scale";
        }

        if (settings.Policy == PlayingPolicy.KeepFrames)
        {
            yield return "every frame shown, the clock slips";
        }

        if (settings.Pictures)
        {
            yield return "preview pictures were on";
        }

        if (run.Ending is RunEnding.Stopped or RunEnding.CutShort)
        {
            yield return run.Ending == RunEnding.Stopped ? "stopped early" : "cut short; kept up to its last second";
        }

        if (conditions.OtherLoad is > BusyFrom and var busy)
        {
            yield return string.Create(CultureInfo.InvariantCulture, $"{busy:0.0} cores were busy with other work");
        }

        if (conditions.PresenterPriority == false)
        {
            yield return "the presenter had no priority";
        }

        var ownFault = run.Frames.Count(frame => frame.Reason == DropReason.PresenterLate);
        if (ownFault > 0)
        {
            yield return $"{ownFault} drops are the player's own: it woke too late";
        }
    }
}
