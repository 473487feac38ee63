using System.Net;
using HardyBench.Server.Guard;

namespace HardyBench.Server.Tests;

public sealed class SignInAttemptsTests
{
    private readonly SetClock time = new();

    [Fact]
    public void After_ten_wrong_tokens_within_a_minute_an_address_waits_and_others_do_not()
    {
        var (attempts, guesser, other) = (new SignInAttempts(time), IPAddress.Parse("192.0.2.1"), IPAddress.Parse("192.0.2.2"));
        for (var n = 1; n <= SignInAttempts.Most; n++)
        {
            Assert.Null(attempts.Wait(guesser));
            Assert.Equal(n, attempts.Note(guesser));
        }

        Assert.Equal(SignInAttempts.Within, attempts.Wait(guesser));
        Assert.Null(attempts.Wait(other));
        time.Now += SignInAttempts.Within;
        Assert.Null(attempts.Wait(guesser));
        Assert.Equal(1, attempts.Note(guesser));
    }

    private sealed class SetClock : TimeProvider
    {
        public DateTimeOffset Now { get; set; } = new(2026, 3, 4, 5, 6, 7, TimeSpan.Zero);

        public override DateTimeOffset GetUtcNow() => Now;
    }
}
