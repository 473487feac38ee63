using HardyBench.Core.Machines;
using HardyBench.Telemetry;

namespace HardyBench.Player.Tests.Telemetry;

/// <summary>A machine for plans in which it does not matter which.</summary>
internal static class AnyMachine
{
    public static Machine This { get; } = HostMachine.Describe(SystemFiles.Live, "here", "Here");
}
