using System.IO.Compression;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Core;
using HardyBench.Core.Findings;
using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Playback;
using HardyBench.Core.Trials;
using HardyBench.Core.Wording;
using HardyBench.Workbench;
using HardyBench.Workbench.Clips;
using HardyBench.Workbench.Data;
using HardyBench.Workbench.Demo;
using HardyBench.Workbench.Packs;
using HardyBench.Workbench.Plays;
using HardyBench.Workbench.Trials;

namespace HardyBench.Workbench.Tests;

public sealed class BenchTests
{
    [Fact]
    public async Task A_new_data_folder_has_the_demo_in_it()
    {
        var bench = await OpenAsync();

        Assert.Equal(
            [("touring-night", 8), ("closing-gala", 7)],
            (await bench.Timelines.AllAsync()).Select(timeline => (timeline.Id, timeline.Passages.Count))
        );
        Assert.Equal(
            DemoMachines.All.Select(machine => machine.Id).Prepend(bench.Machines.Host.Id),
            (await bench.Machines.AllAsync()).Select(machine => machine.Id)
        );
    }

    [Fact]
    public async Task Stand_ins_play_at_once_and_are_kept()
    {
        var (bench, heard) = (await OpenAsync(), new Listener());

        var (id, run) = await bench.Plays.PlayAsync(
            await bench.Plays.PlanAsync("touring-night", "curlew-desk", new PlaybackSettings()),
            heard,
            CancellationToken.None
        );

        Assert.Equal(id, heard.Id);
        Assert.Equal(run.Frames, heard.Frames);
        var kept = (await bench.Runs.FindAsync(id))!.Run;
        Assert.Equal(
            run.Frames.Select(frame => (frame.Frame, frame.Status, frame.Reason)),
            kept.Frames.Select(frame => (frame.Frame, frame.Status, frame.Reason))
        );
        Assert.All(
            run.Frames.Zip(kept.Frames),
            pair => Assert.Equal(pair.First.SlotStart.TotalMicroseconds, pair.Second.SlotStart.TotalMicroseconds, 1.0)
        );
        Assert.Equal(RunFindings.Of(run).Select(finding => (finding.Verdict, finding.Counts.StartUpDrops, finding.Counts.SteadyDrops)),
            RunFindings.Of(kept).Select(finding => (finding.Verdict, finding.Counts.StartUpDrops, finding.Counts.SteadyDrops)));
    }

    /// <summary>The demo's story: the slate and the old tower fail on HEVC 4:2:2, which their media engines leave out.</summary>
    [Fact]
    public async Task The_demo_picks_the_desktop_and_says_what_fails_first_elsewhere()
    {
        var bench = await Bench.OpenAsync(TestData.NewFolder(), small: false, CancellationToken.None);

        await bench.Advice.PlayStandInsAsync("touring-night", CancellationToken.None);
        var pick = await bench.Advice.AdviseAsync("touring-night");

        Assert.Equal("curlew-desk", pick.Machine!.Id);
        var tower = pick.Others.Single(other => other.Machine.Id == "gannet-tower");
        Assert.Equal((4, Limiter.ProcessorDecode), (tower.FirstFailure!.Index, tower.FirstFailure.Limiter!.Limiter));
        Assert.Contains(
            "not played",
            AdviceWords.WhyNot(pick.Others.Single(other => other.Machine.Id == bench.Machines.Host.Id)),
            StringComparison.Ordinal
        );
    }

    /// <summary>The second demo timeline asks for more step by step: along the drive of one tower the knee lies at SATA, and a second
    /// graphics unit gains nothing, because decoding limits.</summary>
    [Fact]
    public async Task The_gala_shows_along_what_one_part_gains_and_from_where_on_it_does_not()
    {
        var bench = await Bench.OpenAsync(TestData.NewFolder(), small: false, CancellationToken.None);
        await bench.Advice.PlayStandInsAsync("closing-gala", CancellationToken.None);

        var drives = (await bench.Grids.FamiliesAsync("closing-gala")).Single(family => family.What == Condition.MediaDrive);
        var sides = (await bench.Comparisons.OfAsync([.. drives.Members.Select(member => member.Run)])).Sides;
        var axis = Axis.Along([.. sides.Select(side => new AxisSide(side.Differences, side.Beside, side.Shares))])!;

        Assert.Equal(
            ["mechanical, 180 MB/s", "SATA, 530 MB/s", "NVMe, 3500 MB/s", "striped array, 9000 MB/s"],
            drives.Members.Select(member => member.Text)
        );
        Assert.StartsWith("SATA", axis.Points[axis.Knee].Text, StringComparison.Ordinal);
        var rows = (await bench.Grids.ByPassageAsync("closing-gala")).Rows.ToDictionary(row => row.Machine.Id);
        Assert.Equal(
            (Limiter.Drive, Limiter.ProcessorDecode),
            (rows["knot-tower-mechanical"].Cells[2]!.Limiter, rows["knot-tower-sata"].Cells[4]!.Limiter)
        );
        Assert.Equal(
            rows["avocet-tower"].Cells.Select(cell => cell!.Verdict),
            rows["avocet-tower-twin"].Cells.Select(cell => cell!.Verdict)
        );
        Assert.Equal(Limiter.Memory, rows["heron-8"].Cells[5]!.Limiter);
    }

    [Fact]
    public async Task Advice_plays_nothing_and_the_stand_ins_play_once()
    {
        var bench = await OpenAsync();
        Assert.Null((await bench.Advice.AdviseAsync("touring-night")).Machine);
        Assert.Empty(await bench.RunList.AllAsync());

        Assert.Equal(DemoMachines.All.Count, await bench.Advice.PlayStandInsAsync("touring-night", CancellationToken.None));
        Assert.Equal(0, await bench.Advice.PlayStandInsAsync("touring-night", CancellationToken.None));

        Assert.Equal(DemoMachines.All.Count, (await bench.RunList.AllAsync()).Count);
    }

    [Fact]
    public async Task A_page_that_is_left_stops_the_stand_ins_between_two_machines_and_leaves_no_stopped_run()
    {
        var bench = await OpenAsync();
        using var left = new CancellationTokenSource();

        await Assert.ThrowsAsync<OperationCanceledException>(() =>
            bench.Advice.PlayStandInsAsync("touring-night", left.Token, () => left.CancelAsync())
        );

        Assert.Equal(RunEnding.Finished, Assert.Single(await bench.RunList.AllAsync()).Ending);
        using var leftEarly = new CancellationTokenSource(TimeSpan.FromMilliseconds(1));
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => bench.Advice.PlayStandInsAsync("touring-night", leftEarly.Token));
        Assert.All(await bench.RunList.AllAsync(), run => Assert.Equal(RunEnding.Finished, run.Ending));
    }

    [Fact]
    public async Task Stand_ins_play_again_once_their_clips_are_measured()
    {
        var folder = TestData.NewFolder();
        var asked = await Bench.OpenAsync(folder, small: true, CancellationToken.None);
        await asked.Advice.PlayStandInsAsync("touring-night", CancellationToken.None);
        foreach (
            var file in Directory.GetFiles(
                (await Bench.OpenAsync(await TestData.NewDataFolderAsync(), true, CancellationToken.None)).Clips.Path
            )
        )
        {
            Directory.CreateDirectory(asked.Clips.Path);
            File.Copy(file, Path.Combine(asked.Clips.Path, Path.GetFileName(file)));
        }

        await Task.WhenAll(
            asked.Advice.PlayStandInsAsync("touring-night", CancellationToken.None),
            asked.Advice.PlayStandInsAsync("touring-night", CancellationToken.None)
        );

        var runs = await asked.RunList.AllAsync();
        Assert.Equal(2 * DemoMachines.All.Count, runs.Count);
        Assert.Equal(5, (await asked.Runs.FindAsync(runs[0].Id))!.Run.Header.ClipChecksums.Count);
    }

    /// <summary>Proxies can take longer than what is played from them, so that they are made is told before the first run.</summary>
    [Fact]
    public async Task What_a_trial_makes_before_its_runs_is_told()
    {
        var bench = await Bench.OpenAsync(await TestData.NewDataFolderAsync(), small: true, CancellationToken.None);
        var timeline = (await bench.Timelines.FindAsync("touring-night")).Timeline;
        var stored = await bench.Timelines.AddAsync(
            timeline with
            {
                Id = "short",
                Title = "Short",
                Passages = [timeline.Passages[0] with { FrameCount = 25 }],
            }
        );
        var asked = await bench.Trials.AskAsync(new PlayTrial(), stored.Timeline.Id, bench.Machines.Host.Id,
            new PlaybackSettings(Proxies: Proxies.Quarter));
        var heard = new Told();

        await bench.Trials.PlayAsync(asked.Id, heard, CancellationToken.None);

        Assert.Equal(["proxy of hd-avc-25", "1 of 1"], heard.Words);
    }

    private sealed class Told : ITrialListener
    {
        public List<string> Words { get; } = [];

        public void StepBegan(TrialStep step, int number, int? of) => Words.Add(step.Role.Label);

        public void Making(string what) => Words.Add(what);

        public void Started(long id, RunHeader header)
        {
        }

        public void Progressed(long id, RunProgress progress)
        {
        }

        public void Pictured(long id, int frame, byte[] jpeg)
        {
        }
    }

    [Fact]
    public async Task A_pack_carries_a_timeline_with_its_clips_to_another_bench()
    {
        var here = await Bench.OpenAsync(await TestData.NewDataFolderAsync(), small: true, CancellationToken.None);
        var there = await OpenAsync();
        using var pack = new MemoryStream();
        await here.Packs.ExportAsync(["touring-night"], pack, CancellationToken.None);
        pack.Position = 0;

        var id = Assert.Single(await there.Packs.ImportAsync(pack, CancellationToken.None));

        var (from, to) = ((await here.Timelines.FindAsync("touring-night")).Timeline, (await there.Timelines.FindAsync(id)).Timeline);
        Assert.Equal(from.Passages.Select(passage => passage.Question), to.Passages.Select(passage => passage.Question));
        Assert.Equal(
            from.ClipIds.Select(clip => here.Clips.Clips.Known(clip).Sha256),
            to.ClipIds.Select(clip => there.Clips.Clips.Known(clip).Sha256)
        );
        Assert.Empty(Directory.GetDirectories(there.Folder.Incoming));
    }

    [Theory]
    [InlineData("clips/hd-avc-25.mp4", true, "was changed since the pack was made")]
    [InlineData("clips/hd-avc-50.mp4", false, "hd-avc-50.mp4 is missing from the pack")]
    [InlineData("manifest.json", false, "has no manifest")]
    public async Task A_changed_or_missing_file_of_a_pack_is_named_and_nothing_is_taken_in(string entry, bool replace, string words)
    {
        var here = await Bench.OpenAsync(await TestData.NewDataFolderAsync(), small: true, CancellationToken.None);
        var there = await OpenAsync();
        using var pack = new MemoryStream();
        await here.Packs.ExportAsync(["touring-night"], pack, CancellationToken.None);
        using (var zip = new ZipArchive(pack, ZipArchiveMode.Update, leaveOpen: true))
        {
            zip.GetEntry(entry)!.Delete();
            if (replace)
            {
                await using var other = zip.CreateEntry(entry).Open();
                await other.WriteAsync("something else"u8.ToArray());
            }
        }

        pack.Position = 0;
        var error = await Assert.ThrowsAsync<PackException>(() => there.Packs.ImportAsync(pack, CancellationToken.None));

        Assert.Contains(words, error.Message, StringComparison.Ordinal);
        Assert.Contains("Nothing was imported", error.Message, StringComparison.Ordinal);
        Assert.Empty(there.Clips.Own!.Clips);
        Assert.Equal(2, (await there.Timelines.AllAsync()).Count);
    }

    [Fact]
    public async Task What_somebody_wrote_is_not_set_back_when_the_folder_is_opened_again()
    {
        var folder = TestData.NewFolder();
        var bench = await Bench.OpenAsync(folder, small: true, CancellationToken.None);
        var stored = await bench.Timelines.FindAsync("touring-night");
        await bench.Timelines.KeepAsync(stored.Timeline with { Title = "Ours" }, stored.Version);

        var again = await Bench.OpenAsync(folder, small: true, CancellationToken.None);

        Assert.Equal("Ours", (await again.Timelines.FindAsync("touring-night")).Timeline.Title);
    }

    [Fact]
    public async Task What_is_asked_for_by_a_wrong_name_is_named_with_what_there_is()
    {
        var bench = await OpenAsync();

        var timeline = await Assert.ThrowsAsync<UnknownThingException>(() => bench.Timelines.FindAsync("nope"));
        var machine = await Assert.ThrowsAsync<UnknownThingException>(() => bench.Machines.FindAsync("nope"));

        Assert.Equal("There is no timeline 'nope'. Known: touring-night, closing-gala.", timeline.Message);
        Assert.Contains("curlew-desk", machine.Message, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_folder_that_cannot_be_written_is_a_clear_error()
    {
        var error = await Assert.ThrowsAsync<DataFolderException>(() => Bench.OpenAsync("/proc/hardybench", true, CancellationToken.None));

        Assert.Contains("/proc/hardybench cannot be written", error.Message, StringComparison.Ordinal);
        Assert.Contains("--data", error.Message, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_database_that_is_none_is_a_clear_error_and_is_left_as_it_was()
    {
        var folder = TestData.NewFolder();
        var file = Path.Combine(folder, "bench.db");
        await File.WriteAllTextAsync(file, new string('x', 5000));

        var error = await Assert.ThrowsAsync<DataFolderException>(() => Bench.OpenAsync(folder, true, CancellationToken.None));

        Assert.Contains("Nothing was changed", error.Message, StringComparison.Ordinal);
        Assert.Equal(5000, new FileInfo(file).Length);
    }

    [Fact]
    public async Task This_machine_plays_for_real_and_its_run_is_kept_with_its_conditions()
    {
        var bench = await Bench.OpenAsync(await TestData.NewDataFolderAsync(), small: true, CancellationToken.None);
        using var stop = new CancellationTokenSource();
        var heard = new Listener { OnProgress = frames => { if (frames > 20) { stop.Cancel(); } } };

        var (id, run) = await bench.Plays.PlayAsync(
            await bench.Plays.PlanAsync("touring-night", bench.Machines.Host.Id, new PlaybackSettings()),
            heard,
            stop.Token
        );

        var kept = (await bench.Runs.FindAsync(id))!.Run;
        Assert.Equal((RunEnding.Stopped, run.Frames.Count), (kept.Ending, kept.Frames.Count));
        Assert.Equal(5, kept.Header.ClipChecksums.Count);
        Assert.Contains("libavcodec", kept.Header.Conditions.Player, StringComparison.Ordinal);
        Assert.NotEmpty(kept.Header.Conditions.UsableCores);
    }

    private static Task<Bench> OpenAsync() => Bench.OpenAsync(TestData.NewFolder(), small: true, CancellationToken.None);

    private sealed class Listener : IRunListener
    {
        public long Id { get; private set; }

        public List<FrameRecord> Frames { get; } = [];

        public Action<int>? OnProgress { get; init; }

        public void Started(long id, RunHeader header) => Id = id;

        public void Progressed(long id, RunProgress progress)
        {
            Frames.AddRange(progress.Frames);
            OnProgress?.Invoke(Frames.Count);
        }

        public void Pictured(long id, int frame, byte[] jpeg)
        {
        }
    }
}
