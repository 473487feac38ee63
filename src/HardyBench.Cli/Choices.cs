using System.CommandLine;
using System.CommandLine.Parsing;
using System.Text.Json;

namespace HardyBench.Cli;

/// <summary>Choices as the command line takes them: lower case, words parted by hyphens. Help and errors print them all.</summary>
internal static class Choices
{
    /// <summary>"step-down".</summary>
    public static string WordOf<T>(T value)
        where T : struct, Enum => JsonNamingPolicy.KebabCaseLower.ConvertName(value.ToString());

    /// <summary>"none, half or quarter".</summary>
    public static string All<T>()
        where T : struct, Enum
    {
        var words = Enum.GetValues<T>().Select(WordOf).ToList();
        return $"{string.Join(", ", words[..^1])} or {words[^1]}";
    }

    public static Argument<T> Argument<T>(string name, string about = "")
        where T : struct, Enum => new(name)
        {
            Description = Described<T>(about), HelpName = Named<T>(), CustomParser = result => Read<T>(result) ?? default,
        };

    public static Option<T> Option<T>(string name, string about, T usual)
        where T : struct, Enum => new(name)
        {
            Description = Described<T>(about), HelpName = Named<T>(), CustomParser = result => Read<T>(result) ?? usual,
            DefaultValueFactory = _ => usual,
        };

    /// <summary>One that can be left out.</summary>
    public static Option<T?> Option<T>(string name, string about)
        where T : struct, Enum => new(name) { Description = Described<T>(about), HelpName = Named<T>(), CustomParser = Read<T> };

    /// <summary>"&lt;none|half|quarter&gt;" in help.</summary>
    private static string Named<T>()
        where T : struct, Enum => string.Join('|', Enum.GetValues<T>().Select(WordOf));

    private static string Described<T>(string about)
        where T : struct, Enum => $"{about}{(about.Length > 0 ? " " : string.Empty)}{All<T>()}.";

    private static T? Read<T>(ArgumentResult result)
        where T : struct, Enum
    {
        var word = result.Tokens.Count > 0 ? result.Tokens[^1].Value : string.Empty;
        foreach (var value in Enum.GetValues<T>())
        {
            if (WordOf(value) == word)
            {
                return value;
            }
        }

        result.AddError($"'{word}' is none of {All<T>()}.");
        return null;
    }
}
