using System.Diagnostics;
using System.Text.Json;
using HardyBench.Core.Findings.Statistics;

namespace HardyBench.Core.Tests.Findings.Statistics;

/// <summary>Welch's interval and chance on random samples against the npm package @stdlib/stats-ttest2.</summary>
public sealed class WelchReferenceTests
{
    private sealed record Reference(double Low, double High, double Chance);

    [Fact]
    public async Task Interval_and_chance_agree_on_random_samples()
    {
        var random = new Random(11);
        using var node = Process.Start(new ProcessStartInfo("node")
        {
            ArgumentList = { "welch.mjs" }, WorkingDirectory = Repository.PathOf("tests", "reference"),
            RedirectStandardInput = true, RedirectStandardOutput = true,
        })!;
        for (var trial = 0; trial < 300; trial++)
        {
            var (first, second) = (Sample(random), Sample(random));
            await node.StandardInput.WriteLineAsync(JsonSerializer.Serialize(new { first, second }));
            await node.StandardInput.FlushAsync();
            var expected = JsonSerializer.Deserialize<Reference>(
                (await node.StandardOutput.ReadLineAsync())!, JsonSerializerOptions.Web)!;
            var ours = WelchDifference.Of(first, second);

            var scale = Math.Abs(expected.High) + Math.Abs(expected.Low);
            Assert.Equal(expected.Low / scale, (ours.Mean - ours.Half!.Value) / scale, 6);
            Assert.Equal(expected.High / scale, (ours.Mean + ours.Half!.Value) / scale, 6);
            Assert.Equal(expected.Chance, ours.Chance!.Value, 6);
        }

        node.StandardInput.Close();
    }

    private static double[] Sample(Random random)
    {
        var (size, middle, spread) = (random.Next(2, 12), 10 + random.NextDouble() * 40, random.NextDouble() * 5 + 0.01);
        return [.. Enumerable.Range(0, size).Select(_ => middle + spread * (random.NextDouble() - 0.5))];
    }
}
