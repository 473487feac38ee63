using System.Security.Cryptography;
using System.Text.Json;
using System.Text.Json.Serialization;
using HardyBench.Core.Machines;
using HardyBench.Formats.Json;

namespace HardyBench.Formats.Machines;

/// <summary>Tells whether two descriptions are of a machine that plays alike.</summary>
public static class MachineDigest
{
    /// <summary>Lower-case hex SHA-256 of every part that affects a result; names, price and the like do not.</summary>
    public static string Of(Machine machine)
    {
        var compared = machine.AsCompared;
        var parts = new Parts(
            compared.Processor, compared.Graphics, compared.MediaEngines, compared.Memory, compared.Drives, compared.Cooling,
            compared.OnBattery)
        {
            Costs = compared.Costs,
        };
        return Convert.ToHexStringLower(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(parts, BenchJson.Options)));
    }

    private sealed record Parts(
        Processor Processor,
        IReadOnlyList<Graphics> Graphics,
        IReadOnlyList<MediaEngine> MediaEngines,
        Memory Memory,
        IReadOnlyList<Drive> Drives,
        Cooling? Cooling, bool OnBattery)
    {
        /// <summary>What was measured; left out where nothing was, so that the digests of such machines stay as they were.</summary>
        [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
        public MachineCosts? Costs { get; init; }
    }
}
