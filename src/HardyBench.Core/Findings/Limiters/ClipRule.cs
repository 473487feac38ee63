using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings.Limiters;

/// <summary>The passage could not be played. No load says so: the player does.</summary>
public sealed class ClipRule : LimiterRule
{
    protected override IReadOnlyDictionary<Limiter, LimiterAdvice> Names { get; } = new Dictionary<Limiter, LimiterAdvice>
    {
        [Limiter.Clip] = new("Create or relink the clip, then play again.", null, "a clip cannot be played"),
    };

    public override LimiterFinding? Find(LoadMeans loads, Conditions conditions) => null;

    protected override string? KnownBy(LimiterFinding finding) => null;
}
