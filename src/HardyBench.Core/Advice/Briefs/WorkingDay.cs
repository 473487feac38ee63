using HardyBench.Core.Machines;

namespace HardyBench.Core.Advice.Briefs;

/// <summary>How long and on what power somebody works, which decides what a machine keeps up.</summary>
/// <param name="Session">How long at a stretch, without letting the machine cool.</param>
/// <param name="OnBattery">Whether it has to do its work on battery.</param>
public sealed record WorkingDay(TimeSpan Session, bool OnBattery = false)
{
    /// <summary>An hour, on the power that the machine is described with.</summary>
    public static WorkingDay Usual { get; } = new(TimeSpan.FromHours(1));

    /// <summary>The machine on the power that it is used with.</summary>
    public Machine Used(Machine machine) => OnBattery ? machine with { OnBattery = true } : machine;
}
