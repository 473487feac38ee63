using HardyBench.Formats.Files;
using static System.FormattableString;

namespace HardyBench.Formats.Advice;

/// <summary>The figures behind an answer as comma-separated text with a head line (RFC 4180): a line an offer that answers, a way of
/// working, parts for the machine that is there, and a passage of the machine that is owned and of what is recommended.</summary>
public static class AnswerCsv
{
    public static string Write(AnswerDocument answer) => CsvText.Of(
    [
        .. answer.Steps.Select(step => new AnswerLine("offer", step.Name)
        {
            Price = step.Price, Headroom = Rounded(step.Headroom), Probability = Rounded(step.Chance),
            StartSeconds = Rounded(step.StartSeconds), ScrubSeconds = Rounded(step.ScrubSeconds), Details = step.Weakest,
        }),
        .. answer.Remedies.Select(remedy => new AnswerLine("way of working", remedy.Words)
        {
            Details = remedy.Cost.Length > 0 ? $"{remedy.Gain}; {remedy.Cost}" : remedy.Gain,
        }),
        .. answer.Ladder.Select(rung => new AnswerLine("parts", rung.Words)
        {
            Price = rung.Price, Headroom = Rounded(rung.Headroom), Details = rung.Gain,
        }),
        .. answer.Owned is { } owned ? Passages("owned", owned) : [],
        .. answer.Pick is { } pick ? Passages("recommended", pick) : [],
    ]);

    private static IEnumerable<AnswerLine> Passages(string of, CheckRow check) =>
        check.Passages.Select(passage => new AnswerLine(of, check.Name)
    {
        Timeline = passage.Timeline, Passage = passage.Number, Question = passage.Question, Verdict = passage.Verdict?.ToString(),
        ShownRate = Rounded(passage.ShownRate), Headroom = Rounded(passage.Headroom), Probability = Rounded(passage.Chance),
        Details = string.Join("; ", new[] { passage.Limiter?.ToString(), passage.Evidence, RunOf(passage) }.Where(text => !string.IsNullOrEmpty(text))),
    });

    private static string? RunOf(CheckedRow passage) => passage.RunId is { } run ? Invariant($"run {run}") : null;

    private static double? Rounded(double? value) => value is { } figure ? Math.Round(figure, 4) : null;

    /// <param name="Line">What the line is.</param>
    /// <param name="Name">Of the machine, the build, the way of working or the parts.</param>
    private sealed record AnswerLine(string Line, string Name)
    {
        public decimal? Price { get; init; }

        public string? Timeline { get; init; }

        public int? Passage { get; init; }

        public string? Question { get; init; }

        public string? Verdict { get; init; }

        public double? ShownRate { get; init; }

        public double? Headroom { get; init; }

        public double? Probability { get; init; }

        public double? StartSeconds { get; init; }

        public double? ScrubSeconds { get; init; }

        public string? Details { get; init; }
    }
}
