using System.Text.Json;
using HardyBench.Core.Machines;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Machines;

/// <summary>Machines as JSON, one or a whole shelf; docs/formats.md describes every member.</summary>
public static class MachineJson
{
    private const string Format = "hardy-bench-machines/1";

    private static readonly IReadOnlyDictionary<string, JsonElement> Missing = new Dictionary<string, JsonElement>
    {
        ["id"] = JsonSerializer.SerializeToElement(string.Empty),
        ["summary"] = JsonSerializer.SerializeToElement(string.Empty),
        ["kind"] = JsonSerializer.SerializeToElement("standIn"),
    };

    public static string Write(IReadOnlyList<Machine> machines) =>
        JsonSerializer.Serialize(new { Format, Machines = machines.Select(StandIn) }, BenchJson.Options);

    /// <summary>Reads the document that <see cref="Write"/> writes, a bare list, or one machine.</summary>
    /// <exception cref="ShelfException">The text is no JSON, or holds no machines.</exception>
    public static ShelfReading Read(string text)
    {
        var (machines, problems) = ShelfJson.Read<Machine>(
            text, Format, "machine", "machines", Missing, machine => MachineLimits.Checked(StandIn(machine)));
        return new ShelfReading(machines, problems);
    }

    /// <summary>Whatever it was where it was written, here it can only be simulated.</summary>
    private static Machine StandIn(Machine machine) => machine with { Kind = MachineKind.StandIn };
}
