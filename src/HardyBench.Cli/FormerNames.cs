namespace HardyBench.Cli;

/// <summary>Options and commands under the names that they had in the version before: they still work, with a notice. Remove a name one
/// version after it was added here.</summary>
internal static class FormerNames
{
    private static readonly Dictionary<string, string> Options = new()
    {
        ["--at-clock"] = "--real-time",
        ["--as"] = "--program",
        ["--to-as"] = "--to-program",
        ["--writes"] = "--format",
    };

    /// <summary>Those of one kind of trial, whose former name is another kind's present one.</summary>
    private static readonly Dictionary<(string Kind, string Former), string> TrialOptions = new()
    {
        [("start-lag", "--times")] = "--places",
        [("compare", "--times")] = "--pairs",
    };

    private static readonly Dictionary<(string Command, string Former), string> Commands = new()
    {
        [("clips", "make")] = "create",
    };

    /// <summary>The same command line in present names.</summary>
    /// <param name="notice">Receives one sentence for each former name.</param>
    public static string[] Replaced(string[] arguments, Action<string> notice)
    {
        var (replaced, trial) = (arguments.ToArray(), arguments.SkipWhile(word => word != "trial").ElementAtOrDefault(1) ?? string.Empty);
        for (var at = 0; at < replaced.Length; at++)
        {
            var (name, value) = replaced[at].IndexOf('=', StringComparison.Ordinal) is > 0 and var end
                ? (replaced[at][..end], replaced[at][end..])
                : (replaced[at], string.Empty);
            if (Options.TryGetValue(name, out var option)
                || TrialOptions.TryGetValue((trial, name), out option))
            {
                replaced[at] = option + value;
                notice($"{name} is now called {option}. The former name works in this version only.");
            }
            else if (at > 0 && Commands.TryGetValue((replaced[at - 1], replaced[at]), out var command))
            {
                notice($"'{replaced[at - 1]} {replaced[at]}' is now called '{replaced[at - 1]} {command}'. The former name works in this version only.");
                replaced[at] = command;
            }
        }

        return replaced;
    }
}
