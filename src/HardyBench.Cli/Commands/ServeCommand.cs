using System.CommandLine;
using HardyBench.Server;
using HardyBench.Server.Guard;
using HardyBench.Workbench;
using HardyBench.Workbench.Data;
using Microsoft.Extensions.Hosting;

namespace HardyBench.Cli.Commands;

internal static class ServeCommand
{
    public static Command Create()
    {
        var port = new Option<int>("--port") { Description = "Port.", DefaultValueFactory = _ => 5240 };
        var address = new Option<string>("--address")
        {
            Description =
                "Address to listen on; only this machine can reach the default. Any other needs a token (hardybench token) and is "
                    + "encrypted.",
            DefaultValueFactory = _ => "127.0.0.1",
        };
        var host = new Option<string[]>("--host")
        {
            Description = "A host name under which the page may be opened, in addition to the address.",
            DefaultValueFactory = _ => [],
        };
        var certificate = new Option<string?>("--certificate")
        {
            Description = "A PEM file with certificate and key. Without it, the server creates one.",
        };
        var demo = new Option<bool>("--demo") { Description = "Create missing clips and play the stand-ins at once." };
        return new Command("serve", "Starts the page and the API.") { port, address, host, certificate, demo }.Opening(
            async (parsed, bench, stop) =>
        {
            var listening = Listening.On(
                parsed.GetValue(address)!, parsed.GetValue(port), parsed.GetValue(host)!, parsed.GetValue(certificate), bench.Folder);
            using var alone = ServingLock.Take(bench.Folder);
            try
            {
                await using var server = BenchServer.Create(bench, listening, parsed.GetValue(demo), rehearse: true);
                await server.StartAsync(stop);
                if (bench.Machines.Host.MovedFrom is { } other)
                {
                    Terminal.Say($"The data was last used on another computer. Its runs are kept under \"{other.Name}\" and do not count for "
                        + "this machine. Play the timelines here, and calibrate again if you need a twin.");
                }

                foreach (var run in bench.CutShort)
                {
                    Terminal.Say($"Run {run} was interrupted; it is saved up to its last second.");
                }

                foreach (var run in bench.Unreadable)
                {
                    Terminal.Say(run.Why);
                }

                if (listening.Certificate is { } encrypted)
                {
                    Terminal.Say(
                        "The certificate's SHA-256 fingerprint is "
                            + $"{encrypted.GetCertHashString(System.Security.Cryptography.HashAlgorithmName.SHA256)}."
                    );
                }

                Terminal.Say($"Hardy Bench is at {listening.Url} with the data in {bench.Folder.Path}. Stop it with Ctrl+C.");
                await server.WaitForShutdownAsync(stop);
                return ExitCodes.Done;
            }
            catch (IOException taken) when (taken.InnerException is Microsoft.AspNetCore.Connections.AddressInUseException)
            {
                await Console.Error.WriteLineAsync(
                    $"Port {parsed.GetValue(port)} is in use by another program. Nothing was started. Choose another with --port.");
                return ExitCodes.Port;
            }
        });
    }
}
