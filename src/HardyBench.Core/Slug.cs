namespace HardyBench.Core;

/// <summary>Names for files and addresses, from words of people.</summary>
public static class Slug
{
    /// <summary>The letters and digits of ASCII in lower case, a hyphen for whatever stands between.</summary>
    /// <param name="atMost">Letters at most.</param>
    /// <param name="otherwise">Where nothing of the text remains.</param>
    public static string Of(string text, int atMost, string otherwise)
    {
        var letters = text.ToLowerInvariant().Select(letter => char.IsAsciiLetterOrDigit(letter) ? letter : ' ').ToArray();
        var slug = string.Join('-', new string(letters).Split(' ', StringSplitOptions.RemoveEmptyEntries));
        return slug.Length == 0 ? otherwise : slug[..Math.Min(atMost, slug.Length)].TrimEnd('-');
    }

    /// <summary>The name that is wanted where it is one and free, else one made from a title.</summary>
    public static string For(string wanted, string title, int atMost, string otherwise, Func<string, bool> isTaken) =>
        wanted.Length > 0 && Of(wanted, atMost, string.Empty) == wanted && !isTaken(wanted) ? wanted
            : Unused(Of(title, atMost, otherwise), isTaken);

    /// <summary>The name itself, or with the first number from 2 on behind it that is free.</summary>
    public static string Unused(string slug, Func<string, bool> isTaken) =>
        Enumerable.Range(1, int.MaxValue).Select(n => n == 1 ? slug : $"{slug}-{n}").First(name => !isTaken(name));
}
