using HardyBench.Core.Advice.Answers;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;

namespace HardyBench.Workbench.Demo;

/// <summary>What Tidewater Stagecraft asks for.</summary>
public static class DemoBriefs
{
    public static IReadOnlyList<Brief> All { get; } =
    [
        new("on-tour", "The cut before the van leaves", ["touring-night"])
        {
            Budget = 2000, Owned = "sandpiper-slate", MayUse = [RemedyKind.HalfScale, RemedyKind.HalfProxies],
        },
        new("editing-room", "The editing room, for the next years", ["touring-night"])
        {
            Growth = 2, Forms = [MachineForm.Tower], MostDecibels = 36, Owned = "gannet-tower", Others = new OtherPrograms(0, 8),
        },
    ];
}
