using HardyBench.Core.Findings;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Advice;

/// <summary>A machine and what its last bare run of the timeline says.</summary>
/// <param name="Findings">Null when there is no such run.</param>
/// <param name="Disturbance">Why that run says nothing of the machine; null when it does.</param>
public sealed record Candidate(Machine Machine, IReadOnlyList<PassageFinding>? Findings, Disturbance? Disturbance = null)
{
    /// <param name="run">Null when it has not played.</param>
    public static Candidate Of(Machine machine, Run? run)
    {
        if (run is null)
        {
            return new Candidate(machine, null);
        }

        var findings = RunFindings.Of(run);
        return new Candidate(machine, findings, Disturbance.Of(run, findings));
    }

    /// <summary>Every passage that is long enough for a verdict holds, and there is one. One that is too short says nothing against a
    /// machine.</summary>
    public bool Answers => Findings is not null && Disturbance is null
        && Findings.Any(finding => finding.Verdict == Verdict.Holds)
        && Findings.All(finding => finding.Verdict == Verdict.Holds || finding.IsTooShort);

    /// <summary>The first passage that does not hold, in playing order.</summary>
    public PassageFinding? FirstFailure => Findings?.FirstOrDefault(finding => finding.Fails);
}
