using System.Globalization;
using Spectre.Console;

namespace HardyBench.Cli;

/// <summary>Words, tables and progress: drawn on a terminal, plain lines elsewhere.</summary>
internal static class Terminal
{
    private static readonly bool IsTerminal = !Console.IsOutputRedirected;

    public static void Say(string line) => Console.WriteLine(line);

    /// <summary>On a terminal a table with borders; elsewhere tab-separated lines.</summary>
    public static void Show(Table table)
    {
        if (IsTerminal)
        {
            AnsiConsole.Write(table.Border(TableBorder.Rounded));
            return;
        }

        AnsiConsole.Profile.Width = 400;
        AnsiConsole.Write(table.Border(TableBorder.None));
    }

    /// <summary>Runs long work that reports what it is at and how far it is, 0 to 1.</summary>
    public static async Task WithProgressAsync(string title, Func<Action<string, double>, Task> work)
    {
        if (IsTerminal)
        {
            await AnsiConsole.Progress().Columns(
                    new TaskDescriptionColumn(), new ProgressBarColumn(), new PercentageColumn(), new RemainingTimeColumn())
                .StartAsync(async context =>
                {
                    var task = context.AddTask(title);
                    await work((what, share) =>
                    {
                        task.Description = Markup.Escape($"{title}: {what}");
                        task.Value = share * 100;
                    });
                });
            return;
        }

        var last = string.Empty;
        await work((what, share) =>
        {
            var tenth = (int)(share * 10) * 10;
            var line = string.Create(CultureInfo.InvariantCulture, $"{title}: {what}, {tenth} %");
            if (line != last)
            {
                Console.WriteLine(last = line);
            }
        });
    }
}
