using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines.Effects;
using static System.FormattableString;
using static HardyBench.Core.Figures;

namespace HardyBench.Core.Wording;

/// <summary>What a reader has to know before trusting a run, a phrase each.</summary>
public static class RunWords
{
    /// <summary>What differed from a bare run, what was unfavourable, and what happened, in this order.</summary>
    public static IReadOnlyList<string> NotesOf(Run run) => [.. run.Header.Differences(), .. RunNotes.Of(run).Select(Of)];

    public static IReadOnlyList<string> NotesOf(Conditions conditions) => [.. RunNotes.OfConditions(conditions).Select(Of)];

    public static string Of(RunNote note) => note switch
    {
        OtherProgramsBusy busy => Invariant($"{busy.Cores:0.0} cores were busy with other work"),
        PresenterHadNoPriority => "the display thread had no priority",
        LittleMemoryFree memory => Invariant($"only {memory.Bytes / 1e6:0} MB of memory was free"),
        LittleRoomFree room => Invariant($"only {room.Bytes / 1e6:0} MB were free on the drive that keeps the run"),
        RanFromBattery => "it ran from the battery",
        BatteryWasLow battery => $"the battery was at {Percent(battery.Charge)}",
        GovernorSavesPower => "the clock governor saves power",
        DecodedElsewhere clip => $"{clip.Clip} was decoded on the {clip.Place}: {clip.Why}",
        NotOnEngine clip => $"{clip.Clip} was decoded on the processor: the media engine has {MachineWords.Of(clip.Lacks)}",
        WaitedForDrive clip => $"{clip.Clip} was {Percent(clip.Cached)} in the file cache, so playback waited for the drive at first",
        EffectRanElsewhere effect => $"{EffectCatalogue.LabelOf(effect.Effect)} was done on the {effect.Place}: {effect.Why}",
        EndedEarly { Ending: RunEnding.Stopped } => "stopped early",
        EndedEarly { Ending: RunEnding.Unreadable } => "damaged",
        EndedEarly => "interrupted; saved up to its last second",
        RestsOnEstimates { Clips: var clips } => $"provisional: {string.Join(", ", clips)} {(clips.Count == 1 ? "is" : "are")} not created yet, "
            + "so the data rate is an estimate; the stand-in is simulated again when it is known",
        PlayedFromRenders rendered => $"played from pre-renders: passage {string.Join(", ", rendered.Passages.Select(index => index + 1))}",
        PassageError wrong => $"passage {wrong.Passage + 1}: {wrong.What}",
        OwnDrops { Count: 1 } => "1 missed slot was caused by the player, which showed frames late",
        OwnDrops drops => $"{drops.Count} missed slots were caused by the player, which showed frames late",
        PresenterWasLate late => Invariant($"the player showed frames {late.By.TotalMilliseconds:0.0} ms late at the 99th percentile, ")
            + "so part of what this run measured is the tool itself",
        ClockFell clock => $"the clock fell to {Percent(clock.Share)} of its rating while the processor was busy",
        ToolLoad tool => Invariant($"the tool itself took {tool.Cores:0.00} cores"),
        PreviewLoad pictures => Invariant($"preview pictures took {pictures.Cores:0.00} cores"),
        Suspended slept => Invariant($"the machine was suspended for {slept.For.TotalSeconds:0} s at {slept.At.TotalSeconds:0.0} s; ")
            + "the run's clock stopped meanwhile, so no frame counts as dropped because of it",
        TimeWasSet set => Invariant(
            $"the time of day was set {(set.By > TimeSpan.Zero ? "forward" : "back")} by {Math.Abs(set.By.TotalSeconds):0} s "
        ) + Invariant($"at {set.At.TotalSeconds:0.0} s; ") + "the run's own clock does not follow it",
        PlayerStalled still => Invariant(
            $"the machine did nothing for {still.For.TotalSeconds:0} s; frames due in that time count as dropped"
        ),
        _ => throw new ArgumentOutOfRangeException(nameof(note), note, "This note has no wording."),
    };
}
