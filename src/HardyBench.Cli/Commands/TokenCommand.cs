using System.CommandLine;
using HardyBench.Server.Guard;

namespace HardyBench.Cli.Commands;

internal static class TokenCommand
{
    public static Command Create() =>
        new Command(
            "token",
            "Makes the access token that others than this machine need, in place of any before; it is shown this once."
        ).Running(
            async (_, bench, _) =>
        {
            Terminal.Say(AccessToken.Make(Listening.TokenFileIn(bench.Folder)));
            await Console.Error.WriteLineAsync(
                "Save it now: only its checksum is stored here. A running server accepts it after its next start."
            );
            return ExitCodes.Done;
        });
}
