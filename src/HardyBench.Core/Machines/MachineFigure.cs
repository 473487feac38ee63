using static System.FormattableString;

namespace HardyBench.Core.Machines;

/// <summary>A number of a machine's description: one row of the table from which limits, comparisons, the columns of a table of machines
/// and the fields of the form come.</summary>
/// <param name="Path">Part and member in JSON, as "memory.gigabytes"; a member of the machine itself has no part.</param>
/// <param name="Column">Its column in a table of machines.</param>
/// <param name="Field">Its label in the form, beside the name of the part.</param>
/// <param name="Name">Its name in a sentence.</param>
/// <param name="Unit">Null for counts and ratios.</param>
/// <param name="Min">Least that is allowed.</param>
/// <param name="Max">Most that is allowed.</param>
/// <param name="Read">The number of each part that has it, with the part's name where a machine has several; null where it is not
/// stated.</param>
public sealed record MachineFigure(
    string Path, string Column, string Field, string Name, string? Unit, double Min, double Max,
    Func<Machine, IEnumerable<(string? Of, double? Value)>> Read)
{
    /// <summary>Whether it is a count.</summary>
    public bool IsWhole { get; init; }

    /// <summary>Whether its field in the form may be empty.</summary>
    public bool IsOptional { get; init; }

    /// <summary>Whether a comparison of machines names this number. Others are compared as part of a whole, as a drive is, or affect no
    /// result.</summary>
    public bool IsCompared { get; init; }

    /// <summary>The part that it is a member of; empty for the machine itself.</summary>
    public string Part => Path[..Math.Max(0, Dot)];

    /// <summary>Its name in JSON, within its part.</summary>
    public string Member => Path[(Dot + 1)..];

    private int Dot => Path.IndexOf('.', StringComparison.Ordinal);

    private string AndUnit => Unit is null ? string.Empty : $" {Unit}";

    /// <summary>Of a machine that has one of its part, with the unit; null where it is not stated.</summary>
    public string? TextOf(Machine machine) => Read(machine).FirstOrDefault().Value is { } value ? Invariant($"{value:0.##}{AndUnit}") : null;

    /// <summary>A sentence for each number out of the limits.</summary>
    public IEnumerable<string> Problems(Machine machine) =>
        from one in Read(machine)
        where one.Value is { } value && !(value >= Min && value <= Max)
        select Invariant($"The {Name}{(one.Of is null ? string.Empty : $" of {one.Of}")} is {one.Value}{AndUnit}; allowed: {Min} to {Max}.");
}
