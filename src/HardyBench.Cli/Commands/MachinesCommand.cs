using System.CommandLine;
using System.Globalization;
using HardyBench.Core.Machines;
using Spectre.Console;

namespace HardyBench.Cli.Commands;

internal static class MachinesCommand
{
    public static Command Create() => new Command("machines", "Lists this machine and the stand-ins.")
        .Running(async (_, bench, _) =>
        {
            var table = new Table().AddColumns("id", "name", "processor", "memory", $"price in {Machine.Currency}");
            foreach (var machine in await bench.Machines.AllAsync())
            {
                table.AddRow(
                    machine.Id, Markup.Escape(machine.Name), Markup.Escape($"{machine.Processor.Name}, {machine.Processor.Cores} cores"),
                    string.Create(CultureInfo.InvariantCulture, $"{machine.Memory.Gigabytes:0.#} GB"),
                    machine.Price?.ToString("#,0", CultureInfo.InvariantCulture) ?? "no price");
            }

            Terminal.Show(table);
            return ExitCodes.Done;
        });
}
