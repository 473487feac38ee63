using System.Reflection;
using System.Runtime.CompilerServices;

namespace HardyBench.Workbench.Tests;

public sealed class FailuresTests
{
    /// <summary>Caught before anybody else sees them.</summary>
    private static readonly string[] CaughtInside = [];

    /// <summary>A new exception that is not in the table would be reported as unexpected.</summary>
    [Fact]
    public void Every_exception_of_our_own_has_a_kind()
    {
        string[] libraries = ["Core", "Formats", "Media", "Store", "Telemetry", "Workbench"];
        var own = libraries.SelectMany(name => Assembly.Load($"HardyBench.{name}").GetTypes())
            .Where(type => type.IsAssignableTo(typeof(Exception)) && type.IsPublic).ToList();

        Assert.InRange(own.Count, 15, 100);
        Assert.Equal(
            CaughtInside,
            own.Where(type => Failures.KindOf((Exception)RuntimeHelpers.GetUninitializedObject(type)) is null).Select(type => type.Name));
    }
}
