using HardyBench.Core.Trials;

namespace HardyBench.Core.Wording;

/// <summary>Answers of trials in words.</summary>
public static class TrialWords
{
    /// <summary>The answer, and which runs it leaves out, why, and what to do.</summary>
    public static string Of(TrialAnswer answer)
    {
        var words = answer.Changed is { } sides && ChangeWords.Of(sides.First, sides.Second, sides.WithoutEffect) is { } change
            ? $"Changed: {change}. {answer.Words}"
            : answer.Words;
        return answer.LeftOut is { } left ? $"{words} {Of(left)}".TrimStart() : words;
    }

    private static string Of(ExcludedRuns left) =>
        (left.Count == left.All ? "No run counts"
            : left.Count == 1 ? $"1 of {left.All} runs does not count and is left out"
            : $"{left.Count} of {left.All} runs do not count and are left out")
        + $": {AdviceWords.By(left.First)}. {AdviceWords.First(left.First)}";
}
