using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Advice;

/// <summary>What keeps a run from saying anything of its machine: nobody is advised to buy by it.</summary>
/// <param name="By">What was wrong, in words.</param>
/// <param name="First">What to do before anything can be said, a sentence.</param>
public sealed record Spoilt(string By, string First)
{
    /// <returns>Null for a run that counts.</returns>
    public static Spoilt? Of(Run run, IReadOnlyList<PassageFinding> findings)
    {
        var (conditions, machine) = (run.Header.Conditions, run.Header.Machine);
        if (run.Failures.FirstOrDefault(failure => !failure.Overcome) is { } failed)
        {
            return new Spoilt($"passage {failed.PassageIndex + 1} could not be played", "Make or relink its clips, then play again.");
        }

        if (conditions.OtherLoad > RunNotes.BusyFrom || findings.Any(finding => finding.Limiter?.Limiter == Limiter.OtherPrograms))
        {
            return new Spoilt("other programs were busy", "Close them and play again.");
        }

        if (conditions.Machine?.OnMains == false)
        {
            return new Spoilt("it ran from the battery", "Plug it in and play again.");
        }

        return machine.Kind == MachineKind.This && conditions.UsableCores.Count < machine.Processor.Threads
            ? new Spoilt($"it could use {conditions.UsableCores.Count} of its {machine.Processor.Threads} cores", "Let it use all of them and play again.")
            : null;
    }
}
