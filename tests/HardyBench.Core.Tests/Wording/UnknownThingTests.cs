namespace HardyBench.Core.Tests.Wording;

public sealed class UnknownThingTests
{
    [Theory]
    [InlineData("There is no run '9'. Known: 1, 2.", "1", "2")]
    [InlineData("There is no run '9'. None exists yet.")]
    public void What_is_known_is_named_where_there_is_any(string words, params string[] known) =>
        Assert.Equal(words, new UnknownThingException("run", "9", known).Message);
}
