using HardyBench.Core.Advice.Briefs;
using HardyBench.Formats.Advice;
using HardyBench.Server.Plays;
using HardyBench.Workbench;

namespace HardyBench.Server.Advice;

/// <summary>Reckoning would spoil what is measured on this machine.</summary>
public sealed class MeasuringNowException() : Exception(
    "Something is being measured on this machine, and reckoning an answer would load it. Ask again when it has ended.");

/// <summary>Answers briefs, one after another and not while something is measured here: reckoning takes every core for some seconds. What
/// wants to be measured meanwhile waits.</summary>
public sealed class AnswerDesk(Bench bench, ThisMachineInUse inUse)
{
    /// <exception cref="MeasuringNowException">Something is measured.</exception>
    public async Task<AnswerDocument> AnswerAsync(Brief brief, CancellationToken stop)
    {
        using var turn = inUse.TryTake();
        if (turn is null && inUse.IsMeasured)
        {
            throw new MeasuringNowException();
        }

        return AnswerDocument.Of(await bench.Answers.AnswerAsync(brief, stop), await bench.Answers.TitlesAsync(brief));
    }
}
