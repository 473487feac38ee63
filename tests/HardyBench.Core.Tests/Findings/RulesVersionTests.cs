using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using HardyBench.Core.Findings;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Tests.Findings;

/// <summary>Stored findings are drawn again only when <see cref="RunSummary.Rules"/> has risen. So findings of made-up records that touch
/// every limiter are kept here as a digest: whoever changes a rule has to raise the version too.</summary>
public sealed class RulesVersionTests
{
    private const int Passages = 12, FramesEach = 60, Records = 40;

    /// <summary>Of the findings by the rules of that version.</summary>
    private static readonly (int Rules, string Digest) Kept = (5, "bd5e40663cefa2d8");

    [Fact]
    public void Findings_change_only_together_with_the_version_of_the_rules()
    {
        var findings = Enumerable.Range(0, Records).SelectMany(seed => RunFindings.Of(Record(seed))).ToList();

        var named = findings.Select(finding => finding.Limiter?.Limiter).OfType<Limiter>().ToHashSet();
        Assert.Empty(Enum.GetValues<Limiter>().Except(named));
        Assert.Empty(Enum.GetValues<Verdict>().Except(findings.Select(finding => finding.Verdict).OfType<Verdict>()));
        var digest = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(string.Join('\n', findings.Select(Text)))))[..16];
        Assert.True(
            Kept == (RunSummary.Rules, digest),
            $"The rules find something else than version {Kept.Rules} did. Raise RunSummary.Rules above {Kept.Rules} and put the new version "
            + $"with the digest {digest} here.");
    }

    private static string Text(PassageFinding finding) => string.Create(
        CultureInfo.InvariantCulture,
        $"{finding.Verdict} {finding.Limiter?.Limiter} {finding.Limiter?.Second?.Limiter} {finding.Headroom:0.#####} {finding.Counts.Shown} ")
        + string.Create(
            CultureInfo.InvariantCulture,
            $"{finding.Counts.ShownRate:0.#####} {finding.Counts.StartUpDrops} {finding.Counts.SteadyDrops} {finding.Counts.LongestFreeze} ")
        + string.Create(CultureInfo.InvariantCulture, $"{finding.GivenUpFrom} {finding.Wasted.Frames} {finding.Wasted.Share:0.#####}");

    /// <summary>A run with one thing at its ceiling in each passage, and as many misses as the seed says.</summary>
    private static Run Record(int seed)
    {
        var random = new Random(seed);
        var timeline = new Timeline("t", "T", Core.Footage.Raster.Hd, Samples.Rate, [
            .. Enumerable.Range(0, Passages).Select(_ => new Passage("asked", FramesEach, [new Layer("c", [])], []))]);
        var settings = new PlaybackSettings(Policy: seed % 5 == 4 ? PlayingPolicy.Unpaced : PlayingPolicy.KeepTime);
        var header = new RunHeader(
            timeline, Samples.Machine(cores: 4), settings, new Conditions("p", null, [0, 1, 2, 3], 0, null, 1),
            new Dictionary<string, string>(), DateTimeOffset.UnixEpoch);
        var missed = random.NextDouble() * (seed % 3) / 2;
        var (frames, loads) = (new List<FrameRecord>(), new List<LoadReading>());
        for (var frame = 0; frame < Passages * FramesEach; frame++)
        {
            var slot = Samples.Ms(500) + Samples.Rate.StartOf(frame);
            frames.Add(Slot(frame, slot, random.NextDouble() < missed, random));
            if (frame % 3 == 0)
            {
                loads.AddRange(Loads(slot + Samples.Ms(20), (frame / FramesEach + seed) % Ceilings.Length, random));
            }
        }

        var failures = seed % 7 == 6 ? new[] { new PassageFailure(3, "The clip is damaged.") } : [];
        return new Run(header, RunEnding.Finished, Samples.Ms(500), [.. frames], loads, failures);
    }

    private static FrameRecord Slot(int frame, TimeSpan slot, bool isMissed, Random random)
    {
        var (status, reason) = !isMissed ? (FrameStatus.OnTime, DropReason.None)
            : random.Next(4) switch
            {
                0 => (FrameStatus.Late, DropReason.None),
                1 => (FrameStatus.Overdue, DropReason.NotReady),
                2 => (FrameStatus.Dropped, DropReason.DecodeSkipped),
                _ => (FrameStatus.Dropped, DropReason.NotReady),
            };
        TimeSpan? ready = status switch
        {
            FrameStatus.OnTime => slot - Samples.Ms(20),
            FrameStatus.Late => slot + Samples.Ms(10),
            FrameStatus.Overdue => slot + Samples.Ms(70),
            _ => null,
        };
        return new FrameRecord(
            frame, slot, ready, status == FrameStatus.Dropped ? null : ready > slot ? ready : slot, status, reason, Samples.Ms(1),
            Samples.Ms(10 + random.Next(10)), Samples.Ms(5), default, 1);
    }

    /// <summary>Readings beside which nothing is at its ceiling, and for each place what stands there instead.</summary>
    private static readonly (LoadKind Kind, int Index, double Value)[] Calm =
    [
        (LoadKind.Core, 0, 0.4), (LoadKind.Core, 1, 0.4), (LoadKind.Core, 2, 0.4), (LoadKind.Core, 3, 0.4), (LoadKind.OwnProcess, 0, 1.5),
        (LoadKind.OwnDecode, 0, 1), (LoadKind.OwnEffects, 0, 0.4), (LoadKind.DriveBusy, 0, 0.3), (LoadKind.MemoryUsed, 0, 8e9),
        (LoadKind.MemoryFitted, 0, 32e9),
    ];

    private static readonly (LoadKind Kind, int Index, double Value)[] Full =
        [(LoadKind.Core, 0, 1), (LoadKind.Core, 1, 1), (LoadKind.Core, 2, 1), (LoadKind.Core, 3, 1), (LoadKind.OwnProcess, 0, 3.9)];

    private static readonly (LoadKind Kind, int Index, double Value)[][] Ceilings =
    [
        [],
        [.. Full, (LoadKind.OwnDecode, 0, 3), (LoadKind.OwnEffects, 0, 0.5)],
        [.. Full, (LoadKind.OwnDecode, 0, 0.5), (LoadKind.OwnEffects, 0, 3)],
        [.. Full, (LoadKind.OwnEncode, 0, 3)],
        [.. Full, (LoadKind.OwnProcess, 0, 1)],
        [(LoadKind.OwnThread, 7, 0.99)],
        [(LoadKind.MediaEngineBusy, 0, 0.99)],
        [(LoadKind.EncoderBusy, 0, 0.99)],
        [(LoadKind.GraphicsBusy, 0, 0.99)],
        [(LoadKind.GraphicsMemoryUsed, 0, 8e9), (LoadKind.GraphicsMemoryFitted, 0, 8e9), (LoadKind.BusBusy, 0, 0.99)],
        [(LoadKind.BusBusy, 0, 0.99)],
        [(LoadKind.MemoryUsed, 0, 31.9e9), (LoadKind.SwapTraffic, 0, 2e8)],
        [(LoadKind.DriveBusy, 0, 0.99)],
        [.. Full, (LoadKind.Clock, 0, 2e9), (LoadKind.RatedClock, 0, 3e9), (LoadKind.Temperature, 0, 95)],
        [.. Full, (LoadKind.Clock, 0, 2e9), (LoadKind.RatedClock, 0, 3e9), (LoadKind.PackagePower, 0, 15), (LoadKind.PowerLimit, 0, 15)],
    ];

    private static IEnumerable<LoadReading> Loads(TimeSpan at, int place, Random random)
    {
        var full = Ceilings[place].GroupBy(one => (one.Kind, one.Index)).ToDictionary(one => one.Key, one => one.Last().Value);
        return Calm.Where(one => !full.ContainsKey((one.Kind, one.Index)))
            .Concat(full.Select(one => (one.Key.Kind, one.Key.Index, one.Value)))
            .Select(one => new LoadReading(at, one.Kind, one.Index, (float)(one.Value * (1 - 0.01 * random.NextDouble()))));
    }
}
