namespace HardyBench.Core;

/// <summary>Something was asked for by an id that nothing has.</summary>
public sealed class UnknownThingException(string kind, string id, IEnumerable<string> known)
    : Exception($"There is no {kind} '{id}'. Known: {string.Join(", ", known)}.");
