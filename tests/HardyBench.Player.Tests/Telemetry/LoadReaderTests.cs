using HardyBench.Core.Playback;
using HardyBench.Player.Decoding;
using HardyBench.Telemetry;

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
        using var reader = new OwnThreads(new SystemFiles(root));
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

    /// <summary>A thread is seen before it has its name, and the AV1 decoder's threads have names of their library's.</summary>
    [Fact]
    public void A_thread_that_gets_its_name_late_counts_as_what_it_is()
    {
        Thread("11", "starting", 0);
        Thread("12", "dav1d-worker", 0);
        using var reader = new OwnThreads(new SystemFiles(root));
        reader.Read(TimeSpan.Zero, TimeSpan.Zero, []);
        Thread("11", "hb-decode", 500_000_000);
        Thread("12", "dav1d-worker", 300_000_000);

        var loads = new List<LoadReading>();
        reader.Read(Second, Second, loads);

        Assert.Equal(0.8f, Value(loads, LoadKind.OwnDecode), 3);
        Assert.Equal(0, Value(loads, LoadKind.OwnTool), 3);
    }

    /// <summary>Whatever the process that asked for the run does is the tool's own, whatever its threads are called.</summary>
    [Fact]
    public void The_process_that_asked_for_the_run_counts_as_the_tool_s_own()
    {
        void Owner(string thread, long nanoseconds)
        {
            Write($"proc/77/task/{thread}/comm", "hb-decode\n");
            Write($"proc/77/task/{thread}/schedstat", $"{nanoseconds} 0 0\n");
        }

        Thread("11", "hb-decode", 0);
        Owner("77", 5);
        using var reader = new OwnThreads(new SystemFiles(root), owner: 77);
        reader.Read(TimeSpan.Zero, TimeSpan.Zero, []);
        Thread("11", "hb-decode", 500_000_000);
        Owner("77", 100_000_005);
        Owner("78", 50_000_000);

        var loads = new List<LoadReading>();
        reader.Read(Second, Second, loads);

        Assert.Equal(0.5f, Value(loads, LoadKind.OwnDecode), 3);
        Assert.Equal(0.15f, Value(loads, LoadKind.OwnTool), 3);
        Assert.Equal(0.65f, Value(loads, LoadKind.OwnProcess), 3);
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
            " 7 0 loop0 1 0 8 0 0 0 0 0 0 0 0\n 259 0 nvme0n1 10 0 2000 5 0 0 0 0 0 100 100\n 259 1 nvme0n1p1 10 0 2000 5 0 0 0 0 0 "
                + "100 100\n",
            " 7 0 loop0 9 0 99 0 0 0 0 0 0 9 0\n 259 0 nvme0n1 20 0 4000 9 0 0 0 0 0 350 400\n 259 1 nvme0n1p1 20 0 4000 9 0 0 0 0 0 "
                + "350 400\n"
        );

        Assert.Equal(2000 * 512f, Value(loads, LoadKind.DriveRead));
        Assert.Equal(0.25f, Value(loads, LoadKind.DriveBusy), 3);
        Assert.Single(loads, load => load.Kind == LoadKind.DriveRead);
    }

    [Fact]
    public void Clock_heat_and_graphics_are_read_where_the_kernel_gives_them()
    {
        Write("sys/devices/system/cpu/cpu0/cpufreq/scaling_cur_freq", "2400000\n");
        Write("sys/devices/system/cpu/cpu1/cpufreq/scaling_cur_freq", "2600000\n");
        Write("sys/class/thermal/thermal_zone0/type", "x86_pkg_temp\n");
        Write("sys/class/thermal/thermal_zone0/temp", "61500\n");
        Write("sys/class/thermal/thermal_zone1/type", "iwlwifi_1\n");
        Write("sys/class/thermal/thermal_zone1/temp", "88000\n");
        Write("sys/class/hwmon/hwmon0/name", "nvme\n");
        Write("sys/class/hwmon/hwmon0/temp1_input", "84000\n");
        Write("sys/class/hwmon/hwmon1/name", "coretemp\n");
        Write("sys/class/hwmon/hwmon1/temp1_input", "60000\n");
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
        using var sampler = new LoadSampler(new SystemFiles(Path.Combine(root, "nothing")), TimeProvider.System);

        sampler.Read(TimeSpan.Zero, TimeSpan.Zero);

        Assert.Empty(sampler.Read(Second, Second));
    }

    [Fact]
    public void A_file_that_vanishes_in_mid_run_leaves_a_gap_and_nothing_else_is_lost()
    {
        Write("proc/stat", "cpu0 100 0 0 100 0 0 0 0 0 0\n");
        Write("sys/class/thermal/thermal_zone0/type", "cpu-thermal\n");
        Write("sys/class/thermal/thermal_zone0/temp", "50000\n");
        Write("proc/meminfo", "MemTotal: 1000 kB\nMemAvailable: 400 kB\n");
        using var sampler = new LoadSampler(new SystemFiles(root), TimeProvider.System);
        sampler.Read(TimeSpan.Zero, TimeSpan.Zero);

        File.Delete(Path.Combine(root, "sys/class/thermal/thermal_zone0/temp"));
        Write("proc/stat", "garbage\n");
        var without = sampler.Read(Second, Second);
        Write("proc/stat", "cpu0 150 0 0 150 0 0 0 0 0 0\n");
        Write("sys/class/thermal/thermal_zone0/temp", "52000\n");
        var back = sampler.Read(2 * Second, Second);

        Assert.Equal([LoadKind.MemoryUsed, LoadKind.MemoryFitted], without.Select(load => load.Kind));
        Assert.Equal(52, Value([.. back], LoadKind.Temperature));
        Assert.Equal(0.5f, Value([.. back], LoadKind.Core), 3);
    }

    [Fact]
    public void Single_threads_are_told_when_they_are_busy()
    {
        Thread("11", "hb-decode", 0);
        Thread("12", "hb-decode", 0);
        var reader = new OwnThreadsOneByOne(new SystemFiles(root));
        reader.Read(TimeSpan.Zero, TimeSpan.Zero, []);
        Thread("11", "hb-decode", 990_000_000);
        Thread("12", "hb-decode", 1_000_000);

        var loads = new List<LoadReading>();
        reader.Read(Second, Second, loads);

        Assert.Equal((11, 0.99f), (Assert.Single(loads).Index, loads[0].Value));
    }

    [Fact]
    public void Drives_are_written_too_and_memory_pressure_is_a_share_of_time()
    {
        Directory.CreateDirectory(Path.Combine(root, "sys/block/sda"));
        var drive = Twice(files => new DriveLoads(files), "proc/diskstats",
            " 8 0 sda 0 0 0 0 10 0 1000 5 0 0 0\n", " 8 0 sda 0 0 0 0 20 0 3000 9 0 0 0\n");
        var memory = Twice(files => new MemoryLoads(files), "proc/pressure/memory",
            "some avg10=0.00 avg60=0.00 avg300=0.00 total=1000\nfull avg10=0.00 avg60=0.00 avg300=0.00 total=0\n",
            "some avg10=0.00 avg60=0.00 avg300=0.00 total=251000\nfull avg10=0.00 avg60=0.00 avg300=0.00 total=0\n");

        Assert.Equal(2000 * 512f, Value(drive, LoadKind.DriveWrite));
        Assert.Equal(0.25f, Value(memory, LoadKind.MemoryPressure), 3);
    }

    /// <summary>The tightest of the groups around this process counts, of either version; files that lie idle in the cache do
    /// not.</summary>
    [Theory]
    [InlineData("5:cpu:/a\n4:memory:/a/b\n", "memory/a/b/memory.limit_in_bytes", "memory/a/b/memory.usage_in_bytes", "memory/a/b")]
    [InlineData("4:memory:/a/b\n", "memory/a/memory.limit_in_bytes", "memory/a/memory.usage_in_bytes", "memory/a")]
    [InlineData("0::/a/b\n", "a/b/memory.max", "a/b/memory.current", "a/b")]
    [InlineData("0::/\n", "memory.max", "memory.current", "")]
    public void Memory_is_what_a_control_group_leaves(string groups, string limit, string use, string folder)
    {
        Write("proc/self/cgroup", groups);
        Write("proc/meminfo", "MemTotal: 16000000 kB\nMemAvailable: 12000000 kB\n");
        Write("sys/fs/cgroup/memory/memory.limit_in_bytes", "9223372036854771712\n");
        Write($"sys/fs/cgroup/{limit}", "2000000000\n");
        Write($"sys/fs/cgroup/{use}", "1900000000\n");
        Write($"sys/fs/cgroup/{folder}/memory.stat", "cache 700\ninactive_file 100000000\nactive_file 5\n");

        var loads = Twice(files => new MemoryLoads(files), "proc/vmstat", "pswpin 0\n", "pswpin 0\n");

        Assert.Equal((1.8e9f, 2e9f), (Value(loads, LoadKind.MemoryUsed), Value(loads, LoadKind.MemoryFitted)));
    }

    [Theory]
    [InlineData("3:cpuacct,cpu:/a/b\n", "cpu/a/cpu.cfs_quota_us", "150000\n", "cpu/a/cpu.cfs_period_us", "100000\n", 1.5)]
    [InlineData("3:cpu:/a\n", "cpu/a/cpu.cfs_quota_us", "-1\n", "cpu/a/cpu.cfs_period_us", "100000\n", null)]
    [InlineData("0::/a/b\n", "a/b/cpu.max", "50000 100000\n", "a/cpu.max", "200000 100000\n", 0.5)]
    [InlineData("0::/a/b\n", "a/b/cpu.max", "max 100000\n", "a/cpu.max", "", null)]
    public void The_tightest_group_says_how_much_of_the_processor_is_left(
        string groups, string first, string text, string second, string other, double? cores)
    {
        Write("proc/self/cgroup", groups);
        Write($"sys/fs/cgroup/{first}", text);
        Write($"sys/fs/cgroup/{second}", other);

        Assert.Equal(cores, ProcessorGroup.Limit(new SystemFiles(root)));
    }

    [Theory]
    [InlineData("max")]
    [InlineData("64000000000")]
    [InlineData("")]
    public void A_control_group_that_holds_nothing_back_leaves_the_machines_memory(string limit)
    {
        Write("proc/self/cgroup", "0::/a\n");
        Write("proc/meminfo", "MemTotal: 16000000 kB\nMemAvailable: 12000000 kB\n");
        Write("sys/fs/cgroup/a/memory.max", limit);
        Write("sys/fs/cgroup/a/memory.current", "1900000000\n");

        var loads = Twice(files => new MemoryLoads(files), "proc/vmstat", "pswpin 0\n", "pswpin 0\n");

        Assert.Equal(16000000 * 1024f, Value(loads, LoadKind.MemoryFitted));
    }

    [Fact]
    public void Waiting_for_footage_is_a_share_of_time_for_each_open_clip_the_read_under_way_with_it()
    {
        var reads = new FootageReads();
        var (first, second) = (Span(10), Span(0));
        var loads = new List<LoadReading>();
        using (reads.Watch(() => first))
        using (reads.Watch(() => second))
        {
            reads.Read(Span(100), Span(100), loads);
            Assert.All(loads, load => Assert.Equal(0, load.Value));
            (first, second) = (Span(60), Span(300));
            loads.Clear();
            reads.Read(Span(200), Span(100), loads);
            Assert.Equal([(0, 0.5f), (1, 1f)], loads.Select(load => (load.Index, load.Value)));
        }

        loads.Clear();
        using var third = reads.Watch(() => first);
        reads.Read(Span(300), Span(100), loads);
        Assert.Equal((0, 0f), (Assert.Single(loads).Index, loads[0].Value));

        static TimeSpan Span(int milliseconds) => TimeSpan.FromMilliseconds(milliseconds);
    }

    [Theory]
    [InlineData("2000000", "14500000", 12.5)]
    [InlineData("99000000", "500000", 1.5)]
    public void Package_power_is_energy_a_second_even_when_the_counter_begins_anew(string first, string second, double watts)
    {
        Write("sys/class/powercap/intel-rapl:0/name", "package-0\n");
        Write("sys/class/powercap/intel-rapl:0/max_energy_range_uj", "100000000\n");
        Write("sys/class/powercap/intel-rapl:0:0/name", "core\n");

        var loads = Twice(files => new PackagePower(files), "sys/class/powercap/intel-rapl:0/energy_uj", first, second);

        Assert.Equal((float)watts, Value(loads, LoadKind.PackagePower), 3);
    }

    [Theory]
    [InlineData("1", "Full", true, 0)]
    [InlineData("0", "Discharging", false, 1)]
    public void Mains_and_battery_are_told_apart(string online, string status, bool onMains, int drawing)
    {
        Write("sys/class/power_supply/AC/type", "Mains\n");
        Write("sys/class/power_supply/AC/online", online);
        Write("sys/class/power_supply/BAT0/type", "Battery\n");
        Write("sys/class/power_supply/BAT0/status", status);
        Write("sys/class/power_supply/BAT0/capacity", "80\n");
        Write("sys/class/power_supply/BAT0/current_now", "1500000\n");
        Write("sys/class/power_supply/BAT0/voltage_now", "12000000\n");
        var (supplies, loads) = (new PowerSupplies(new SystemFiles(root)), new List<LoadReading>());

        supplies.Read(Second, Second, loads);

        Assert.Equal((onMains, 0.8), (supplies.OnMains, supplies.BatteryShare));
        Assert.Equal(0.8f, Value(loads, LoadKind.BatteryCharge), 3);
        Assert.Equal(drawing, loads.Count(load => load.Kind == LoadKind.BatteryPower && load.Value == 18));
        Assert.Null(new PowerSupplies(new SystemFiles(Path.Combine(root, "nothing"))).OnMains);
    }

    [Fact]
    public void Fans_and_a_graphics_unit_s_heat_and_power_are_read()
    {
        Write("sys/class/hwmon/hwmon2/fan1_input", "1450\n");
        Write("sys/class/hwmon/hwmon2/fan2_input", "0\n");
        Write("sys/class/drm/card0/device/hwmon/hwmon4/power1_average", "35000000\n");
        Write("sys/class/drm/card0/device/hwmon/hwmon4/temp1_input", "64000\n");
        var (loads, files) = (new List<LoadReading>(), new SystemFiles(root));

        new Fans(files).Read(Second, Second, loads);
        new GraphicsLoads(files).Read(Second, Second, loads);

        Assert.Equal((1450f, 0f), (Value(loads, LoadKind.FanSpeed), Value(loads, LoadKind.FanSpeed, 1)));
        Assert.Equal((35f, 64f), (Value(loads, LoadKind.GraphicsPower), Value(loads, LoadKind.GraphicsTemperature)));
    }

    /// <summary>The form of the kernel's Documentation/gpu/drm-usage-stats.rst; a client open twice counts once.</summary>
    [Fact]
    public void Our_own_graphics_clients_are_told_by_engine()
    {
        const string Form = "pos:\t0\ndrm-driver:\tany\ndrm-client-id:\t7\ndrm-engine-render:\t{0} ns\ndrm-engine-video:\t{1} ns\n";
        Directory.CreateDirectory(Path.Combine(root, "sys/class/drm/card0"));
        Write("proc/self/fdinfo/3", "pos:\t0\nflags:\t02\n");
        Write("proc/self/fdinfo/9", string.Format(null, Form, 1_000_000_000, 0));
        var loads = Twice(files => new GraphicsClients(files), "proc/self/fdinfo/8",
            string.Format(null, Form, 1_000_000_000, 0), string.Format(null, Form, 1_400_000_000, 900_000_000));

        Assert.Equal(0.4f, Value(loads, LoadKind.GraphicsBusy), 3);
        Assert.Equal(0.9f, Value(loads, LoadKind.MediaEngineBusy), 3);
    }

    [Fact]
    public async Task A_maker_s_command_is_started_once_and_its_newest_line_is_the_reading()
    {
        var script = Path.Combine(root, "graphics-tool");
        await File.WriteAllTextAsync(script, "echo '0, 10, 0, 100, 20.5, 40'\necho '0, 55, 25, 2048, [N/A], 61'\nexec sleep 30\n");
        using var reader = new GraphicsCommand(["sh", script]);
        var loads = new List<LoadReading>();
        for (var i = 0; i < 500 && loads.All(load => load.Value != 0.55f); i++)
        {
            await Task.Delay(10);
            loads.Clear();
            reader.Read(Second, Second, loads);
        }

        Assert.Equal((0.55f, 0.25f), (Value(loads, LoadKind.GraphicsBusy), Value(loads, LoadKind.MediaEngineBusy)));
        Assert.Equal((2048f * 1024 * 1024, 61f), (Value(loads, LoadKind.GraphicsMemoryUsed), Value(loads, LoadKind.GraphicsTemperature)));
        Assert.DoesNotContain(loads, load => load.Kind == LoadKind.GraphicsPower);
    }

    /// <summary>Two units that the kernel tells of itself stay apart from those of the command.</summary>
    [Fact]
    public void Readings_of_two_sources_are_never_taken_for_one_unit()
    {
        Directory.CreateDirectory(Path.Combine(root, "sys/class/drm/card0"));
        Directory.CreateDirectory(Path.Combine(root, "sys/class/drm/card1"));
        Directory.CreateDirectory(Path.Combine(root, "sys/class/drm/card1-DP-1"));
        Directory.CreateDirectory(Path.Combine(root, "sys/block/sda"));
        Directory.CreateDirectory(Path.Combine(root, "sys/block/loop3"));
        var files = new SystemFiles(root);
        using var command = new GraphicsCommand(["any"], GraphicsLoads.CardsOf(files).Count);

        Assert.Equal(
            [new(LoadKind.DriveBusy, 0, "sda"), new(LoadKind.GraphicsBusy, 0, "card0"), new(LoadKind.GraphicsBusy, 1, "card1")],
            LoadSampler.SourcesOf(files).Take(3)
        );
        Assert.Equal(new LoadSource(LoadKind.GraphicsBusy, 2, "unit 0 of any"), command.Sources[0]);
    }

    [Fact]
    public void A_command_that_is_not_there_tells_nothing()
    {
        using var reader = new GraphicsCommand([Path.Combine(root, "missing")]);
        var loads = new List<LoadReading>();

        reader.Read(Second, Second, loads);

        Assert.Empty(loads);
    }

    [Fact]
    public void What_changes_slowly_is_read_once_a_second_over_the_whole_second()
    {
        Thread("11", "hb-decode", 0);
        var (reader, loads) = (new SlowReader(new OwnThreadsOneByOne(new SystemFiles(root))), new List<LoadReading>());
        reader.Read(TimeSpan.Zero, TimeSpan.Zero, loads);
        for (var tenth = 1; tenth <= 20; tenth++)
        {
            Thread("11", "hb-decode", tenth * 50_000_000);
            reader.Read(tenth * 0.1 * Second, 0.1 * Second, loads);
        }

        Assert.Equal([0.5f, 0.5f], loads.Select(load => load.Value));
    }

    [Fact]
    public void A_machine_is_described_from_what_the_kernel_tells()
    {
        Write("proc/stat", "cpu  1\ncpu0 1\ncpu1 1\ncpu2 1\n");
        Write("proc/cpuinfo", "model name\t: Made-up 9\ncpu cores\t: 3\n");
        Write("proc/meminfo", "MemTotal: 16000000 kB\nMemAvailable: 12000000 kB\n");
        Write("proc/self/status", "Cpus_allowed_list:\t0,2\n");

        var machine = HostMachine.Describe(new SystemFiles(root), "here", "Here");

        Assert.Equal(("Made-up 9", 3, 16.4), (machine.Processor.Name, machine.Processor.Cores, machine.Memory.Gigabytes));
        Assert.Equal("2 of 3 cores usable, really played", machine.Summary);
        Assert.Equal([0, 1, 4, 5, 6], HostMachine.ParseList("0-1,4-6"));
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
