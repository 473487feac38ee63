using System.CommandLine;
using HardyBench.Server.Guard;

namespace HardyBench.Cli.Commands;

internal static class TokenCommand
{
    public static Command Create() =>
        new Command(
            "token",
            "Creates the access token that other computers need, and invalidates any earlier one. It is shown only once."
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
