using HardyBench.Core.Machines;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>Why a run says nothing of its machine. One rule for every page: such a run is shown and named, and no verdict on the machine,
/// comparison, answer or advice rests on it.</summary>
public abstract record Disturbance
{
    /// <summary>Whether its figures are wrong, so that no comparison and no trial counts them either. Else they are right for the
    /// conditions under which it was played, which differ from those that a machine is judged by.</summary>
    public virtual bool AffectsFigures => false;

    /// <summary>The part of main memory that footage may take and still lie in the file cache at the next play. Common practice, no
    /// source.</summary>
    private const double CacheOfMemory = 0.5;

    /// <returns>Null for a run that counts.</returns>
    public static Disturbance? Of(Run run, IReadOnlyList<PassageFinding> findings)
    {
        var (conditions, machine) = (run.Header.Conditions, run.Header.Machine);
        if (run.Failures.FirstOrDefault(failure => !failure.Overcome) is { } failed)
        {
            return new PassageNotPlayed(failed.PassageIndex);
        }

        if (conditions.OtherLoad > RunNotes.BusyFrom || findings.Any(finding => finding.Limiter?.Limiter == Limiter.OtherPrograms))
        {
            return new OthersBusy(run.Header.Settings.Others is not null);
        }

        if (findings.FirstOrDefault(finding => finding.Fails && WasCold(finding, run.Header)) is { } cold)
        {
            return new ColdFootage(cold.Index);
        }

        if (conditions.Machine?.OnMains == false)
        {
            return new OnBattery();
        }

        return machine.Kind == MachineKind.Real && conditions.UsableCores.Count < machine.Processor.Threads
            ? new FewerCores(conditions.UsableCores.Count, machine.Processor.Threads)
            : null;
    }

    /// <summary>Whether a clip of a passage was not in the file cache as it was found, and would be the next time. What never fits in
    /// memory comes from the drive every time, which is the machine's own doing.</summary>
    private static bool WasCold(PassageFinding finding, RunHeader header) => header.Settings.Cache == FileCache.AsFound
        && header.Conditions.Footage is { } footage
        && footage.Values.Sum(state => state.Bytes ?? 0) < CacheOfMemory * header.Machine.Memory.Gigabytes * 1e9
        && finding.Passage.Layers.Any(layer => footage.TryGetValue(layer.ClipId, out var state) && state.CachedShare < RunNotes.CachedFrom);
}

/// <param name="Passage">From 0.</param>
public sealed record PassageNotPlayed(int Passage) : Disturbance;

/// <param name="AreSet">Whether somebody set them as a condition of the run, as on a stand-in.</param>
public sealed record OthersBusy(bool AreSet = false) : Disturbance
{
    public override bool AffectsFigures => !AreSet;
}

/// <param name="Passage">From 0; its footage had to come from the drive first.</param>
public sealed record ColdFootage(int Passage) : Disturbance
{
    public override bool AffectsFigures => true;
}

public sealed record OnBattery : Disturbance;

/// <param name="Could">Cores it could use.</param>
/// <param name="Has">Cores it has.</param>
public sealed record FewerCores(int Could, int Has) : Disturbance;
