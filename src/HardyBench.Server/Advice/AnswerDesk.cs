using HardyBench.Core.Advice.Briefs;
using HardyBench.Formats.Advice;
using HardyBench.Server.Plays;
using HardyBench.Workbench;

namespace HardyBench.Server.Advice;

/// <summary>Computing would disturb what is measured on this machine.</summary>
/// <param name="what">What is measured, and for how long yet where that is known.</param>
public sealed class MeasuringNowException(string? what) : Exception(
    $"Something is being measured on this machine ({what ?? "just now"}), and an answer would disturb it. Try again when that has ended.");

/// <summary>Answers briefs, one after another and not while something is measured here: computing takes every core for some seconds. What
/// is to be measured waits until it has ended.</summary>
public sealed class AnswerDesk(Bench bench, ThisMachineInUse inUse)
{
    /// <exception cref="MeasuringNowException">Something is measured.</exception>
    public async Task<AnswerDocument> AnswerAsync(Brief brief, CancellationToken stop)
    {
        using var work = inUse.TryCompute() ?? throw new MeasuringNowException(inUse.BusyWith);
        return AnswerDocument.Of(await bench.Answers.AnswerAsync(brief, stop), await bench.Answers.TitlesAsync(brief));
    }
}
