using System.CommandLine;
using HardyBench.Workbench;

namespace HardyBench.Cli;

/// <summary>Turns every foreseen failure into one clear line and its exit code.</summary>
internal static class Guarded
{
    /// <summary>Judging more runs than this takes long enough for a line about it.</summary>
    private const int ManyRuns = 100;

    /// <summary>Gives a command its action over the open bench, after runs of earlier rules were judged again.</summary>
    public static Command Running(this Command command, Func<ParseResult, Bench, CancellationToken, Task<int>> action) =>
        command.Opening(async (parsed, bench, stop) =>
        {
            await bench.JudgeAgainAsync(stop, (done, of) =>
            {
                if (done == 1 && of > ManyRuns)
                {
                    Console.Error.WriteLine($"After an update, {of} runs are judged again by the new rules.");
                }
            });
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
            // A file's failure need not be of the drive with the data: it may be one that is named on the command line.
            await Console.Error.WriteLineAsync(CodeOf(failure) is null ? LineOf(failure)
                : failure is IOException or UnauthorizedAccessException ? failure.Message : Failures.WordsOf(failure));
            return CodeOf(failure) ?? ExitCodes.Failed;
        }
    }

    /// <summary>One line for a failure that nobody foresaw.</summary>
    public static string LineOf(Exception? failure) =>
        $"Unexpected error: {failure?.GetType().Name ?? "unknown"}: {failure?.GetBaseException().Message.ReplaceLineEndings(" ")} "
        + "Nothing that was saved before is lost.";

    private static int? CodeOf(Exception failure) => Failures.KindOf(failure) switch
    {
        FailureKind.UnknownThing => ExitCodes.Unknown,
        FailureKind.Conflict or FailureKind.Input => ExitCodes.Input,
        FailureKind.NotPlayable or FailureKind.NotCreated => ExitCodes.Media,
        FailureKind.Storage or FailureKind.Damaged => ExitCodes.DataFolder,
        FailureKind.NoPlayer => ExitCodes.NoPlayer,
        // A file that is named on the command line and cannot be opened, too.
        _ => failure is IOException or UnauthorizedAccessException ? ExitCodes.DataFolder : null,
    };
}
