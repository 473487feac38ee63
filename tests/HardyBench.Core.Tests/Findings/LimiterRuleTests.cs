using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Limiters;

namespace HardyBench.Core.Tests.Findings;

/// <summary>Every rule is asked, and every limiter has its advice.</summary>
public sealed class LimiterRuleTests
{
    [Fact]
    public void Every_rule_is_in_the_order()
    {
        var all = typeof(LimiterRule).Assembly.GetTypes().Where(type => !type.IsAbstract && type.IsSubclassOf(typeof(LimiterRule)));
        var asked = LimiterRule.InOrder.Concat(LimiterRule.Otherwise).Select(rule => rule.GetType());

        // A clip that cannot be played is no matter of loads.
        Assert.Equal(all.Except([typeof(ClipRule)]).ToHashSet(), asked.ToHashSet());
    }

    [Fact]
    public void Every_limiter_has_its_advice() => Assert.All(Enum.GetValues<Limiter>(), limiter =>
    {
        var advice = LimiterRule.AdviceOf(limiter);
        Assert.EndsWith(".", advice.Helps, StringComparison.Ordinal);
        Assert.True(advice.DoesNotHelp?.EndsWith('.') ?? true);
        Assert.False(advice.Still.EndsWith('.'));
    });
}
