using HardyBench.Telemetry;

namespace HardyBench.Player.Tests.Telemetry;

/// <summary>Computers differ in their fingerprint, which does not give away the system's own id.</summary>
public sealed class HostFingerprintTests : IDisposable
{
    private readonly string root = Directory.CreateTempSubdirectory("hardybench-host-").FullName;

    [Fact]
    public void Two_computers_differ_and_one_stays_the_same()
    {
        var first = Of("0123456789abcdef0123456789abcdef\n");

        // HMAC-SHA256 of the id with the key "Hardy Bench", from Python's hmac module.
        Assert.Equal("72d93c", first![..6]);
        Assert.Equal(first, Of("0123456789abcdef0123456789abcdef"));
        Assert.NotEqual(first, Of("0123456789abcdef0123456789abcdee"));
    }

    [Theory]
    [InlineData("")]
    [InlineData("uninitialized\n")]
    [InlineData("0123456789ABCDEF0123456789ABCDEF")]
    public void A_system_without_an_id_has_none(string text) => Assert.Null(Of(text));

    [Fact]
    public void A_system_without_the_file_has_none() => Assert.Null(HostFingerprint.Of(new SystemFiles(root)));

    public void Dispose() => Directory.Delete(root, recursive: true);

    private string? Of(string text)
    {
        Directory.CreateDirectory(Path.Combine(root, "etc"));
        File.WriteAllText(Path.Combine(root, "etc", "machine-id"), text);
        return HostFingerprint.Of(new SystemFiles(root));
    }
}
