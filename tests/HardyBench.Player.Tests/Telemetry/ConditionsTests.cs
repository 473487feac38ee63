using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Player.Tests.Playing;
using HardyBench.Telemetry;

namespace HardyBench.Player.Tests.Telemetry;

/// <summary>Conditions are captured: from recorded trees where a machine is described, from real files where the file cache is
/// meant.</summary>
public sealed class ConditionsTests
{
    private readonly string root = TestData.NewFolder();

    [Theory]
    [InlineData("/home/lee/clips/a.mp4", "nvme0n1", "solid state")]
    [InlineData("/archive/old clips/b.mov", "sdb", "rotating")]
    [InlineData("/dev/shm/c.mov", "tmpfs", "memory")]
    [InlineData("/mnt/share/d.mxf", "store:/clips", "network")]
    [InlineData("/odd/e.mxf", null, null)]
    public void Each_file_is_told_its_drive_and_the_drive_s_kind(string path, string? drive, string? kind)
    {
        Write("sys/block/nvme0n1/queue/rotational", "0\n");
        Write("sys/block/sdb/queue/rotational", "1\n");
        Write("proc/self/mountinfo", """
            22 1 259:2 / / rw,relatime shared:1 - ext4 /dev/nvme0n1p2 rw
            30 22 8:17 / /archive/old\040clips rw - ext4 /dev/sdb1 rw
            31 22 0:25 / /dev/shm rw - tmpfs tmpfs rw
            32 22 0:40 / /mnt/share rw - nfs4 store:/clips rw,vers=4
            33 22 0:41 / /odd rw - overlay overlay rw
            """);

        Assert.Equal((drive, kind), new MountedDrives(new SystemFiles(root)).Of(path));
    }

    [Fact]
    public void How_the_machine_stands_is_read_from_the_kernel_and_what_it_does_not_tell_is_null()
    {
        Write("sys/devices/system/cpu/cpu0/cpufreq/scaling_governor", "powersave\n");
        Write("sys/devices/system/cpu/cpu0/cpufreq/scaling_cur_freq", "1200000\n");
        Write("sys/devices/system/cpu/cpu0/cpufreq/base_frequency", "2400000\n");
        Write("proc/meminfo", "MemTotal: 1000 kB\nMemAvailable: 250 kB\n");

        var state = MachineConditions.Read(new SystemFiles(root), root, threads: 3);
        var unknown = MachineConditions.Read(new SystemFiles(Path.Combine(root, "nothing")), null, threads: 3);

        Assert.Equal(("powersave", 0.5, 250 * 1024.0, 3), (state.Governor, state.ClockShare, state.FreeMemoryBytes, state.Threads));
        Assert.True(state.FreeDataBytes > 0);
        Assert.Null(state.OnMains);
        Assert.Equal(new MachineState(null, null, null, null, null, null, null, 3), unknown);
    }

    /// <summary>On a file system that keeps files in memory nothing can be dropped; there the share says so and stays whole.</summary>
    [Fact]
    public async Task A_cold_run_drops_the_footage_from_the_file_cache_and_a_warm_one_reads_it_in()
    {
        var plan = await Plans.SmallAsync(1, 10, new PlaybackSettings());
        var clips = await TestData.ClipsAsync();
        // A copy of its own, which no other test reads meanwhile, and which is on the drive before it is dropped.
        var copy = new OneCopy(Path.Combine(root, "copy.mp4"));
        await using (var file = File.Create(copy.Path))
        {
            await file.WriteAsync(await File.ReadAllBytesAsync(clips.PathOf(clips.Clips["hd-avc-25"])));
            file.Flush(flushToDisk: true);
        }

        var cold = await ShareAsync(FileCache.Cold);
        var warm = await ShareAsync(FileCache.Warm);

        Assert.Equal(1, warm, 3);
        Assert.True(cold < 0.1 || IsInMemory(), $"{cold:0.00} was still in the cache");

        async Task<double> ShareAsync(FileCache cache)
        {
            var run = await Plans.PlayAsync(plan with { Settings = new PlaybackSettings(Cache: cache) }, files: copy);
            return run.Header.Conditions.Footage!["hd-avc-25"].CachedShare!.Value;
        }

        bool IsInMemory() => new MountedDrives(SystemFiles.Live).Of(copy.Path).Kind == "memory";
    }

    [Fact]
    public async Task A_run_says_with_how_many_threads_it_was_played()
    {
        var plan = await Plans.SmallAsync(1, 10, new PlaybackSettings(Threads: 1));

        Assert.Equal(1, (await Plans.PlayAsync(plan)).Header.Conditions.Machine!.Threads);
        Assert.Equal(
            HostMachine.UsableCores(SystemFiles.Live).Count,
            (await Plans.PlayAsync(plan with { Settings = new PlaybackSettings() })).Header.Conditions.Machine!.Threads
        );
    }

    private void Write(string path, string text)
    {
        var file = Path.Combine(root, path);
        Directory.CreateDirectory(Path.GetDirectoryName(file)!);
        File.WriteAllText(file, text);
    }

    private sealed record OneCopy(string Path) : IClipFiles
    {
        public string PathOf(Clip clip) => Path;
    }
}
