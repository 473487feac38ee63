using System.Text.Json;
using System.Text.Json.Serialization;
using HardyBench.Core.Trials.Kinds;

namespace HardyBench.Core.Tests.Trials;

/// <summary>Every kind of trial is registered under its name.</summary>
public sealed class TrialKindsTests
{
    [Fact]
    public void Every_kind_is_written_and_read_by_its_name()
    {
        var named = typeof(Trial).GetCustomAttributes(typeof(JsonDerivedTypeAttribute), inherit: false).Cast<JsonDerivedTypeAttribute>();

        Assert.Equal(
            Enum.GetValues<TrialKind>().Select(kind => JsonNamingPolicy.CamelCase.ConvertName($"{kind}")),
            named.Select(kind => (string)kind.TypeDiscriminator!));
        Assert.All(Enum.GetValues<TrialKind>(), kind => Assert.Equal(kind, Scripted.Kind(kind).Kind));
    }
}
