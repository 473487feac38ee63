using System.Text;
using CsCheck;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Decisions;
using HardyBench.Formats.Runs;

namespace HardyBench.Formats.Tests;

public sealed class DecisionLinesTests
{
    private static readonly Gen<TimeSpan> Times = Gen.Long[0, 2_000_000_000].Select(time => TimeSpan.FromMicroseconds(time));

    private static readonly Gen<ChoiceBasis> Bases = Gen.Select(
        Times, Times, Times, Times, Gen.Int[0, 9], Gen.Int[0, 9],
        (start, expected, decoding, effects, undecoded, before) =>
            new ChoiceBasis(undecoded == 0 ? null : start, expected, decoding, effects, undecoded, before));

    private static readonly Gen<Decision> Any = Gen.Select(
        Times, Gen.Enum<DecisionAct>(), Gen.Long[0, 1_000_000], Gen.Enum<DropReason>(), Gen.Enum<FrameStatus>(), Bases,
        (at, act, frame, reason, status, basis) => new Decision(at, act, frame)
        {
            Reason = frame % 2 == 0 ? null : reason,
            Status = frame % 3 == 0 ? null : status,
            Basis = act == DecisionAct.Chosen ? basis : null,
        });

    private static readonly RunHeader Header = RunFormatTests.Sample().Header;

    [Fact]
    public void Decisions_come_back_in_the_order_of_time() =>
        Any.Array[0, 40].Sample(decisions =>
            Assert.Equal(decisions.OrderBy(one => one.At), DecisionLines.Read(DecisionLines.Write(4, Header, decisions), 4, Header)));

    [Theory]
    [InlineData("", "not a decision log")]
    [InlineData("{}", "not a decision log")]
    [InlineData("no JSON", "Line 1 of the decision log cannot be read")]
    [InlineData("""{"kind":"hardybench decisions","version":2,"run":4,"startedAt":"1970-01-01T00:00:00Z"}""", "format 2; formats up to 1")]
    [InlineData("""{"kind":"hardybench decisions","version":1,"run":5,"startedAt":"1970-01-01T00:00:00Z"}""", "is of run 5")]
    [InlineData("""{"kind":"hardybench decisions","version":1,"run":4,"startedAt":"1971-01-01T00:00:00Z"}""", "started at 1971")]
    [InlineData(First + "\n{\"at\":1,\"act\":\"dreamt\",\"frame\":1}", "Line 2")]
    [InlineData(First + "\n{\"at\":1,\"act\":\"shown\",\"frame\":1}\n[]", "Line 3")]
    public void What_is_no_log_of_the_run_is_refused(string file, string because) => Assert.Contains(
        because,
        Assert.Throws<FormatException>(() => DecisionLines.Read(Encoding.UTF8.GetBytes(file), 4, Header)).Message,
        StringComparison.Ordinal);

    [Fact]
    public void A_time_of_any_size_is_read()
    {
        var read = DecisionLines.Read(Encoding.UTF8.GetBytes(First + "\n{\"at\":1e300,\"act\":\"shown\",\"frame\":1}"), 4, Header);

        Assert.True(read[0].At > TimeSpan.FromDays(3000));
    }

    private const string First = """{"kind":"hardybench decisions","version":1,"run":4,"startedAt":"1970-01-01T00:00:00Z"}""";
}
