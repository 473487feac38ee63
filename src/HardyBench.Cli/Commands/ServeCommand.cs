using System.CommandLine;
using Microsoft.Extensions.Hosting;
using HardyBench.Server;

namespace HardyBench.Cli.Commands;

internal static class ServeCommand
{
    public static Command Create()
    {
        var port = new Option<int>("--port") { Description = "Port.", DefaultValueFactory = _ => 5240 };
        var address = new Option<string>("--address")
        {
            Description = "Address to listen on; only this machine can reach the default.", DefaultValueFactory = _ => "127.0.0.1",
        };
        var demo = new Option<bool>("--demo") { Description = "Make missing clips and play the stand-ins at once." };
        return new Command("serve", "Starts the page and the API.") { port, address, demo }.Running(async (parsed, bench, stop) =>
        {
            var url = $"http://{parsed.GetValue(address)}:{parsed.GetValue(port)}";
            try
            {
                await using var server = BenchServer.Create(bench, url, parsed.GetValue(demo));
                await server.StartAsync(stop);
                foreach (var run in bench.CutShort)
                {
                    Terminal.Say($"Run {run} was broken off the last time; it is kept up to its last second.");
                }

                Terminal.Say($"Hardy Bench is at {url} with the data in {bench.Folder.Path}. Stop it with Ctrl+C.");
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
