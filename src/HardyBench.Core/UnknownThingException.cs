namespace HardyBench.Core;

/// <summary>Something was asked for by an id that nothing has.</summary>
/// <param name="known">The ids that there are; none are named where there are none.</param>
public sealed class UnknownThingException(string kind, string id, IEnumerable<string> known) : Exception(WordsOf(kind, id, [.. known]))
{
    private static string WordsOf(string kind, string id, string[] known) =>
        known.Length == 0 ? $"There is no {kind} '{id}'. None exists yet." : $"There is no {kind} '{id}'. Known: {string.Join(", ", known)}.";
}
