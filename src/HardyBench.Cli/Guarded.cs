using HardyBench.Core.Calibration;
using System.CommandLine;
using HardyBench.Core;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Programs;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Building;
using HardyBench.Formats.Interchange;
using HardyBench.Formats.Machines;
using HardyBench.Media.Clips;
using HardyBench.Workbench;
using HardyBench.Workbench.Data;
using HardyBench.Workbench.Packs;
using HardyBench.Workbench.Playing;
using HardyBench.Workbench.Plays;

namespace HardyBench.Cli;

/// <summary>Turns every foreseen failure into one clear line and its exit code.</summary>
internal static class Guarded
{
    /// <summary>Gives a command its action over the open bench, after runs of earlier rules were judged again.</summary>
    public static Command Running(this Command command, Func<ParseResult, Bench, CancellationToken, Task<int>> action) =>
        command.Opening(async (parsed, bench, stop) =>
        {
            await bench.JudgeAgainAsync(stop);
            return await action(parsed, bench, stop);
        });

    /// <summary>The same at once: the action has them judged meanwhile.</summary>
    public static Command Opening(this Command command, Func<ParseResult, Bench, CancellationToken, Task<int>> action)
    {
        command.SetAction((parsed, stop) => RunAsync(
            async () => await action(parsed, await SharedOptions.OpenBenchAsync(parsed, stop), stop), stop));
        return command;
    }

    public static async Task<int> RunAsync(Func<Task<int>> action, CancellationToken stop)
    {
        try
        {
            return await action();
        }
        catch (OperationCanceledException) when (stop.IsCancellationRequested)
        {
            await Console.Error.WriteLineAsync("Stopped. What was finished is saved.");
            return ExitCodes.Stopped;
        }
        catch (Exception failure)
        {
            await Console.Error.WriteLineAsync(CodeOf(failure) is null ? LineOf(failure) : failure.Message);
            return CodeOf(failure) ?? ExitCodes.Failed;
        }
    }

    /// <summary>One line for a failure that nobody foresaw.</summary>
    public static string LineOf(Exception? failure) =>
        $"Unexpected error: {failure?.GetType().Name ?? "unknown"}: {failure?.GetBaseException().Message.ReplaceLineEndings(" ")} "
        + "Nothing that was saved before is lost.";

    private static int? CodeOf(Exception failure) => failure switch
    {
        UnknownThingException => ExitCodes.Unknown,
        InterchangeException or PackException or SeriesException or FormatException => ExitCodes.Input,
        CalibrationException => ExitCodes.Media,
        ShelfException or ProgramRefusedException or BriefRefusedException or PartRefusedException => ExitCodes.Input,
        CreationException or MediaException or PlayerEndedException or PlanRefusedException or TimelineRefusedException => ExitCodes.Media,
        DataFolderException or RunNotSavedException or UnauthorizedAccessException or IOException => ExitCodes.DataFolder,
        PlayerUnavailableException => ExitCodes.NoPlayer,
        _ => null,
    };
}
