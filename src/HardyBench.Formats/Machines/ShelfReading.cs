using HardyBench.Core.Machines;

namespace HardyBench.Formats.Machines;

/// <summary>Machines that were read from a file, and what could not be.</summary>
/// <param name="Machines">With ids as the file has them; empty where it has none.</param>
public sealed record ShelfReading(IReadOnlyList<Machine> Machines, IReadOnlyList<RowProblem> Problems);

/// <summary>A machine of a file that was left out.</summary>
/// <param name="Where">"line 5" of a table, "machine 3" of a list.</param>
/// <param name="Why">A sentence or more.</param>
public sealed record RowProblem(string Where, string? Name, string Why);

/// <summary>A file that holds no machines at all; the message says why.</summary>
public sealed class ShelfException(string message) : Exception(message);
