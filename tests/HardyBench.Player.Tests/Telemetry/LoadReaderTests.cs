using HardyBench.Core.Playback;
using HardyBench.Player.Telemetry;

namespace HardyBench.Player.Tests.Telemetry;

/// <summary>Readers fed with recorded trees: what the kernel wrote at two moments.</summary>
public sealed class LoadReaderTests
{
    private static readonly TimeSpan Second = TimeSpan.FromSeconds(1);
    private readonly string root = TestData.NewFolder();

    [Fact]
    public void Cores_are_busy_shares_and_stolen_time_is_not_idle()
    {
        var loads = Twice(files => new CoreLoads(files), "proc/stat",
            "cpu  0 0 0 0 0 0 0 0 0 0\ncpu0 100 0 50 800 50 0 0 0 0 0\ncpu1 0 0 0 1000 0 0 0 0 0 0\n",
            "cpu  0 0 0 0 0 0 0 0 0 0\ncpu0 150 0 60 820 60 5 5 0 0 0\ncpu1 0 0 0 1050 0 0 0 50 0 0\n");

        Assert.Equal(0.7f, Value(loads, LoadKind.Core, 0), 3);
        Assert.Equal(0.5f, Value(loads, LoadKind.Core, 1), 3);
    }

    [Fact]
    public void Own_threads_are_told_apart_by_the_names_they_inherit()
    {
        Thread("11", "hb-decode", 1_000_000_000);
        Thread("12", "hb-effects", 500_000_000);
        Thread("13", "main", 0);
        var reader = new OwnThreads(new SystemFiles(root));
        reader.Read(TimeSpan.Zero, TimeSpan.Zero, []);
        Thread("11", "hb-decode", 1_800_000_000);
        Thread("12", "hb-effects", 600_000_000);
        Thread("13", "main", 20_000_000);
        Thread("14", "hb-present", 50_000_000);

        var loads = new List<LoadReading>();
        reader.Read(Second, Second, loads);

        Assert.Equal(0.8f, Value(loads, LoadKind.OwnDecode), 3);
        Assert.Equal(0.1f, Value(loads, LoadKind.OwnEffects), 3);
        Assert.Equal(0.05f, Value(loads, LoadKind.OwnPresenting), 3);
        Assert.Equal(0.02f, Value(loads, LoadKind.OwnTool), 3);
        Assert.Equal(0.97f, Value(loads, LoadKind.OwnProcess), 3);
    }

    [Fact]
    public void Memory_and_swap_traffic_are_bytes()
    {
        Write("proc/meminfo", "MemTotal: 1000 kB\nMemFree: 1 kB\nMemAvailable: 400 kB\nSwapTotal: 100 kB\nSwapFree: 90 kB\n");
        var loads = Twice(files => new MemoryLoads(files), "proc/vmstat", "pswpin 10\npswpout 20\n", "pswpin 15\npswpout 25\n");

        Assert.Equal(600 * 1024f, Value(loads, LoadKind.MemoryUsed));
        Assert.Equal(10 * 1024f, Value(loads, LoadKind.SwapUsed));
        Assert.Equal(10f * Environment.SystemPageSize, Value(loads, LoadKind.SwapTraffic));
    }

    [Fact]
    public void Drives_are_whole_drives_in_bytes_a_second_and_busy_shares()
    {
        Directory.CreateDirectory(Path.Combine(root, "sys/block/nvme0n1"));
        Directory.CreateDirectory(Path.Combine(root, "sys/block/loop0"));
        var loads = Twice(files => new DriveLoads(files), "proc/diskstats",
            " 7 0 loop0 1 0 8 0 0 0 0 0 0 0 0\n 259 0 nvme0n1 10 0 2000 5 0 0 0 0 0 100 100\n 259 1 nvme0n1p1 10 0 2000 5 0 0 0 0 0 100 100\n",
            " 7 0 loop0 9 0 99 0 0 0 0 0 0 9 0\n 259 0 nvme0n1 20 0 4000 9 0 0 0 0 0 350 400\n 259 1 nvme0n1p1 20 0 4000 9 0 0 0 0 0 350 400\n");

        Assert.Equal(2000 * 512f, Value(loads, LoadKind.DriveRead));
        Assert.Equal(0.25f, Value(loads, LoadKind.DriveBusy), 3);
        Assert.Single(loads, load => load.Kind == LoadKind.DriveRead);
    }

    [Fact]
    public void Clock_heat_and_graphics_are_read_where_the_kernel_gives_them()
    {
        Write("sys/devices/system/cpu/cpu0/cpufreq/scaling_cur_freq", "2400000\n");
        Write("sys/devices/system/cpu/cpu1/cpufreq/scaling_cur_freq", "2600000\n");
        Write("sys/class/thermal/thermal_zone0/temp", "61500\n");
        Write("sys/class/drm/card0/device/gpu_busy_percent", "37\n");
        var (loads, files) = (new List<LoadReading>(), new SystemFiles(root));

        new ClockAndHeat(files).Read(Second, Second, loads);
        new GraphicsLoads(files).Read(Second, Second, loads);

        Assert.Equal(2.5e9f, Value(loads, LoadKind.Clock));
        Assert.Equal(61.5f, Value(loads, LoadKind.Temperature));
        Assert.Equal(0.37f, Value(loads, LoadKind.GraphicsBusy), 3);
        Assert.DoesNotContain(loads, load => load.Kind is LoadKind.RatedClock or LoadKind.GraphicsMemoryUsed);
    }

    [Fact]
    public void What_cannot_be_read_is_absent_and_never_zero()
    {
        var sampler = new LoadSampler(new SystemFiles(Path.Combine(root, "nothing")));

        sampler.Read(TimeSpan.Zero, TimeSpan.Zero);

        Assert.Empty(sampler.Read(Second, Second));
    }

    [Fact]
    public void A_machine_is_described_from_what_the_kernel_tells()
    {
        Write("proc/stat", "cpu  1\ncpu0 1\ncpu1 1\ncpu2 1\n");
        Write("proc/cpuinfo", "model name\t: Made-up 9\ncpu cores\t: 3\n");
        Write("proc/meminfo", "MemTotal: 16000000 kB\nMemAvailable: 12000000 kB\n");
        Write("proc/self/status", "Cpus_allowed_list:\t0,2\n");

        var machine = ThisMachine.Describe(new SystemFiles(root));

        Assert.Equal(("Made-up 9", 3, 16.4), (machine.Processor.Name, machine.Processor.Cores, machine.Memory.Gigabytes));
        Assert.Equal("2 of 3 cores usable, really played", machine.Summary);
        Assert.Equal([0, 1, 4, 5, 6], ThisMachine.ParseList("0-1,4-6"));
    }

    private List<LoadReading> Twice(Func<SystemFiles, ILoadReader> make, string path, string first, string second)
    {
        var reader = make(new SystemFiles(root));
        Write(path, first);
        reader.Read(TimeSpan.Zero, TimeSpan.Zero, []);
        Write(path, second);
        var loads = new List<LoadReading>();
        reader.Read(Second, Second, loads);
        return loads;
    }

    private void Thread(string id, string name, long nanoseconds)
    {
        Write($"proc/self/task/{id}/comm", name + "\n");
        Write($"proc/self/task/{id}/schedstat", $"{nanoseconds} 0 1\n");
    }

    private void Write(string path, string text)
    {
        var file = Path.Combine(root, path);
        Directory.CreateDirectory(Path.GetDirectoryName(file)!);
        File.WriteAllText(file, text);
    }

    private static float Value(List<LoadReading> loads, LoadKind kind, int index = 0) =>
        Assert.Single(loads, load => load.Kind == kind && load.Index == index).Value;
}
