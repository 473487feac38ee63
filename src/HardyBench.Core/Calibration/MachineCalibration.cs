using System.Text.Json.Serialization;
using HardyBench.Core.Machines;

namespace HardyBench.Core.Calibration;

/// <summary>One calibration of this machine, whole: what was measured, what the fit makes of it, and the twin that follows from
/// it.</summary>
/// <param name="Id">A short name, by its moment.</param>
/// <param name="At">When it ended, in UTC.</param>
/// <param name="ReadMegabytesPerSecond">Of the drive with the footage; null where it could not be measured.</param>
/// <param name="Took">How long measuring took.</param>
public sealed record MachineCalibration(
    string Id, DateTimeOffset At, Machine Twin, double CoreSpeed, IReadOnlyList<Measure> Measures, IReadOnlyList<FittedDecode> Decodes,
    double? ReadMegabytesPerSecond, TimeSpan Took)
{
    /// <summary>The machine as it was described then; null in what earlier versions measured.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Machine? Measured { get; init; }
}
