using HardyBench.Core.Machines;

namespace HardyBench.Core.Tests.Machines;

/// <summary>A computer is known again by its fingerprint.</summary>
public sealed class HostTests
{
    private static readonly Host First = Of("first", "a"), Second = Of("second", "b"), Nameless = Of("former", null);

    public static TheoryData<Host[], string?, string?> Cases => new()
    {
        { [], "a", null },
        { [], null, null },
        { [First, Second], "a", "first" },
        { [First, Second], "b", "second" },
        { [First, Second], "c", null },
        { [First, Second], null, "second" },
        { [Nameless], "a", "former" },
        { [Nameless, Second], "a", null },
        { [Nameless, Second], "b", "second" },
        { [Second, Nameless], "b", "second" },
    };

    [Theory]
    [MemberData(nameof(Cases))]
    public void A_computer_is_the_one_with_its_fingerprint(Host[] known, string? fingerprint, string? expected) =>
        Assert.Equal(expected, Host.Among(known, fingerprint)?.Id);

    [Fact]
    public void A_computer_without_a_fingerprint_takes_the_first_one_that_is_known() =>
        Assert.Equal("a", Host.Among([Nameless], "a")!.Fingerprint);

    [Fact]
    public void Another_computer_is_named_by_its_first_day() => Assert.Equal("Computer used from 2026-03-04", First.NameElsewhere);

    private static Host Of(string id, string? fingerprint) =>
        new(id, Host.NameHere, fingerprint, new DateTimeOffset(2026, 3, 4, 5, 6, 7, TimeSpan.Zero));
}
