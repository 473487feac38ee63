namespace HardyBench.Server.Tests;

/// <summary>What decodes does so in a process apart.</summary>
public sealed class PlayerApartTests : ServerTest
{
    [Fact]
    public async Task The_server_plays_on_this_machine_and_lists_devices_without_loading_a_media_library()
    {
        var plan = await Bench.Plays.PlanAsync("touring-night", HereId, new());
        plan = plan with { Timeline = plan.Timeline with { Passages = [plan.Timeline.Passages[0] with { FrameCount = 5 }] } };
        Assert.Equal(5, (await Bench.Plays.PlayAsync(plan, null, CancellationToken.None)).Run.Frames.Count);
        Assert.Contains("opencl", await Http.GetStringAsync("/api/play/devices"), StringComparison.Ordinal);

        var loaded = await File.ReadAllTextAsync("/proc/self/maps");

        Assert.DoesNotContain("libavcodec", loaded, StringComparison.Ordinal);
        Assert.DoesNotContain("libhardybench", loaded, StringComparison.Ordinal);
    }
}
