using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Advice;

/// <summary>What keeps a run from saying anything of its machine: nobody is advised to buy by it.</summary>
/// <param name="By">What was wrong, in words.</param>
/// <param name="First">What to do before anything can be said, a sentence.</param>
public sealed record Spoilt(string By, string First)
{
    /// <summary>The part of main memory that footage may take and still lie in the file cache at the next play. Common practice, no source.</summary>
    private const double CacheOfMemory = 0.5;

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

        if (findings.FirstOrDefault(finding => finding.Fails && WasCold(finding, run.Header)) is { } cold)
        {
            return new Spoilt($"the footage of passage {cold.Index + 1} had to come from the drive first", "Play again, now that it lies in the file cache.");
        }

        if (conditions.Machine?.OnMains == false)
        {
            return new Spoilt("it ran from the battery", "Plug it in and play again.");
        }

        return machine.Kind == MachineKind.This && conditions.UsableCores.Count < machine.Processor.Threads
            ? new Spoilt($"it could use {conditions.UsableCores.Count} of its {machine.Processor.Threads} cores", "Let it use all of them and play again.")
            : null;
    }

    /// <summary>Whether a clip of a passage was not in the file cache as it was found, and would be the next time. What never fits in memory
    /// comes from the drive every time, which is the machine's own doing.</summary>
    private static bool WasCold(PassageFinding finding, RunHeader header) => header.Settings.Cache == FileCache.AsFound
        && header.Conditions.Footage is { } footage
        && footage.Values.Sum(state => state.Bytes ?? 0) < CacheOfMemory * header.Machine.Memory.Gigabytes * 1e9
        && finding.Passage.Layers.Any(layer => footage.TryGetValue(layer.ClipId, out var state) && state.CachedShare < RunNotes.CachedFrom);
}
