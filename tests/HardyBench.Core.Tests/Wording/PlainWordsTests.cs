using System.Text.RegularExpressions;

namespace HardyBench.Core.Tests.Wording;

/// <summary>What people read, and the names of the code, use the plain words of tools/plain-check.txt.</summary>
public sealed class PlainWordsTests
{
    private static readonly PlainWords List = PlainWords.Read(Repository.PathOf("tools", "plain-check.txt"));

    private static readonly string[] Kinds = [".cs", ".svelte", ".ts", ".mjs", ".md", "openapi.json"];

    private static readonly string[] Places = ["src", "web/src", "web/openapi.json", "docs", "benchmarks", "README.md"];

    /// <summary>Written by other programs, or by Entity Framework.</summary>
    private static readonly string[] Made = ["/bin/", "/obj/", "/Migrations/", "/node_modules/", "schema.d.ts"];

    [Fact]
    public void Nothing_has_to_be_read_twice()
    {
        var files = Places.SelectMany(FilesOf).ToList();

        Assert.True(files.Count > 500, $"only {files.Count} files were read");
        Assert.Empty(files.SelectMany(file => List.Find(Path.GetRelativePath(Repository.Root, file), File.ReadAllLines(file))));
    }

    [Theory]
    [InlineData("Notes.md", "What the twin foretold.", "foretold -> predict(ed)")]
    [InlineData("Page.svelte", "<p>Bring in a file</p>", "Bring in -> import; restore")]
    [InlineData("Code.cs", "var found = \"the run was cut short\";", "cut short -> interrupted")]
    [InlineData("Code.cs", "/// <summary>Reckons the sum.</summary>", "Reckons -> calculate(d)")]
    [InlineData("Code.cs", "private double Enough = 1;", "Enough -> a name with its quantity")]
    [InlineData("Foretold.svelte", "", "Foretold -> Predict…")]
    public void An_old_word_is_found_with_a_plain_one(string file, string line, string expected) => Assert.Contains(
        List.Find(file, [line]),
        found => found.Contains(expected, StringComparison.Ordinal));

    /// <summary>A keyword of C# is not a text of the page.</summary>
    [Fact]
    public void Code_is_not_read_as_text() =>
        Assert.Empty(List.Find("Code.cs", ["var anew = hand.OfLate;"]));

    [Fact]
    public void A_line_that_gives_a_reason_is_passed_over() =>
        Assert.Single(List.Find("Notes.md", ["Anew <!-- plain-check: fine, because the title of a book -->", "Anew"]));

    private static IEnumerable<string> FilesOf(string place)
    {
        var path = Repository.PathOf(place);
        return File.Exists(path)
            ? [path]
            : Directory.EnumerateFiles(path, "*", SearchOption.AllDirectories)
                .Where(file => Kinds.Any(kind => file.EndsWith(kind, StringComparison.Ordinal)))
                .Where(file => !Made.Any(made => file.Contains(made, StringComparison.Ordinal)));
    }
}

/// <summary>The list of wordings and plain words.</summary>
internal sealed partial class PlainWords
{
    private readonly List<(bool IsName, Regex Wording, string Plain)> rules = [];

    public static PlainWords Read(string file)
    {
        var list = new PlainWords();
        foreach (var cells in File.ReadAllLines(file).Where(line => line.Length > 0 && line[0] != '#').Select(line => line.Split('\t')))
        {
            var isName = cells[0] == "name";
            list.rules.Add((
                isName, isName ? new Regex(cells[1]) : new Regex($@"(?<![\w-])(?:{cells[1]})(?![\w-])", RegexOptions.IgnoreCase), cells[2]));
        }

        return list;
    }

    /// <returns>File, line, wording and the plain word; a sentence each.</returns>
    public IEnumerable<string> Find(string file, IReadOnlyList<string> lines)
    {
        var isCode = Path.GetExtension(file) is ".cs" or ".ts" or ".svelte";
        var names = Of(file, 0, Path.GetFileName(file), isName: true);
        return names.Concat(lines.SelectMany((line, index) => line.Contains("plain-check: fine, because", StringComparison.Ordinal)
            ? []
            : Of(file, index + 1, file.EndsWith(".cs", StringComparison.Ordinal) ? TextOf(line) : line, isName: false)
                .Concat(isCode ? Of(file, index + 1, line, isName: true) : [])));
    }

    private IEnumerable<string> Of(string file, int line, string text, bool isName) => rules
        .Where(rule => rule.IsName == isName)
        .SelectMany(rule => rule.Wording.Matches(text).Select(match => (match.Value, rule.Plain)))
        .Select(found => $"{file}:{line}: {found.Value} -> {found.Plain}");

    /// <summary>What a person reads of a line of C#: its comment, or the texts in it.</summary>
    private static string TextOf(string line) => line.TrimStart().StartsWith("//", StringComparison.Ordinal)
        ? line
        : string.Join(' ', Texts().Matches(line).Select(match => match.Value));

    [GeneratedRegex("\"(?:[^\"\\\\\\n]|\\\\.)*\"")]
    private static partial Regex Texts();
}
