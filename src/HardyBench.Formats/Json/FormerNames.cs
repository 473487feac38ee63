using System.Text.Json.Serialization.Metadata;
using HardyBench.Core.Calibration;

namespace HardyBench.Formats.Json;

/// <summary>Members and values that had another name in earlier versions: read under either name, written under the present one.</summary>
internal static class FormerNames
{
    /// <summary>Values of enumerations, as they are written.</summary>
    public static readonly IReadOnlyList<(string Former, string Now)> Values =
    [
        ("inVain", "wastedWork"),
    ];

    private static readonly Dictionary<Type, (string Former, string Now)[]> Members = new()
    {
        [typeof(PredictedPassage)] = [("foretold", "predicted"), ("foretoldVerdict", "predictedVerdict")], // plain-check: fine, because a former name
    };

    public static void Accept(JsonTypeInfo type)
    {
        foreach (var (former, now) in Members.GetValueOrDefault(type.Type) ?? [])
        {
            var present = type.Properties.Single(member => member.Name == now);
            var old = type.CreateJsonPropertyInfo(present.PropertyType, former);
            old.Set = present.Set;
            type.Properties.Add(old);
        }
    }
}
