using HardyBench.Core.Advice;
using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Formats.PlayerProtocol;
using HardyBench.Formats.Timelines;
using HardyBench.Player.Aids;
using HardyBench.Player.Clips;
using HardyBench.Player.Effects;
using HardyBench.Player.Telemetry;
using HardyBench.Store;
using HardyBench.Workbench.Demo;
using HardyBench.Workbench.Jobs;
using HardyBench.Workbench.Packs;
using HardyBench.Workbench.Playing;

namespace HardyBench.Workbench;

/// <summary>The jobs of the product over one data folder, without any interface: make clips, play, keep, advise.</summary>
public sealed class Bench : IDisposable
{
    private readonly DocumentStore documents;
    private readonly SystemFiles system = SystemFiles.Live;
    private readonly SemaphoreSlim advising = new(1);
    private readonly PlayerProgram program;

    private Bench(DataFolder folder, BenchDatabaseFactory databases, IReadOnlyList<ClipRecipe> pack, string? watched)
    {
        Folder = folder;
        Runs = new RunStore(databases);
        documents = new DocumentStore(databases);
        Clips = new ClipFolder(folder.Clips, pack, new OwnClips(folder.Own, watched));
        ClipMaker = new ClipMaker(Clips);
        Timelines = new TimelineJobs(documents, () => Clips.Clips);
        Packs = new PackJobs(folder, Clips, Timelines);
        Aids = new AidFolder(folder.Aids, Clips);
        program = new PlayerProgram([folder.Clips, folder.Own, folder.Aids, folder.Looks, .. watched is null ? Array.Empty<string>() : [watched]], folder.Players);
        Players = new Players(program);
        Trials = new TrialJobs(this, new TrialStore(databases));
    }

    public DataFolder Folder { get; }

    public RunStore Runs { get; }

    public ClipFolder Clips { get; }

    public ClipMaker ClipMaker { get; }

    public TimelineJobs Timelines { get; }

    public PackJobs Packs { get; }

    public AidFolder Aids { get; }

    public TrialJobs Trials { get; }

    /// <summary>Processes that play on this machine.</summary>
    public Players Players { get; }

    /// <summary>Runs that were found broken off when the folder was opened; each is kept up to its last second.</summary>
    public IReadOnlyList<long> CutShort { get; private set; } = [];

    /// <summary>Opens a data folder, brings it up to date, and sets out the demo data that is not in it yet.</summary>
    /// <param name="small">Whether to use the small pack and a timeline to match.</param>
    /// <exception cref="DataFolderException">It cannot be used.</exception>
    /// <param name="watched">A folder of somebody's own clips, or null.</param>
    public static async Task<Bench> OpenAsync(string path, bool small, CancellationToken stop, string? watched = null)
    {
        var folder = new DataFolder(path);
        try
        {
            Looks.WriteTo(folder.Looks);
            folder.MakeReady();
            var databases = new BenchDatabaseFactory(folder.Database);
            await databases.MigrateAsync(stop);
            var now = DateTimeOffset.UtcNow;
            await new RunStore(databases).ClearAwayAsync(now);
            var bench = new Bench(folder, databases, small ? StarterPack.Small : StarterPack.Full, watched);
            bench.Clips.Own!.ClearAway((now - RunStore.KeptAside).UtcDateTime);
            await bench.Clips.Own!.LookAsync(stop);
            await bench.Runs.DigestAnewAsync();
            bench.CutShort = await bench.Runs.RecoverAsync();
            await bench.Trials.RecoverAsync();
            var raster = small ? Raster.Hd.DividedBy(3) : Raster.Hd;
            await bench.documents.SetOutAsync([DemoTimelines.TouringNight(raster, small ? 3 : 6)], DemoMachines.All);
            return bench;
        }
        catch (NewerDataException newer)
        {
            throw new DataFolderException($"The data in {folder.Path} was written by a newer Hardy Bench. Nothing was changed. Use that one, or choose another folder with --data.", newer);
        }
        catch (Exception failure) when (failure is Microsoft.Data.Sqlite.SqliteException or IOException
            or Microsoft.EntityFrameworkCore.DbUpdateException)
        {
            throw new DataFolderException(
                $"The data in {folder.Path} cannot be opened: {failure.GetBaseException().Message} Nothing was changed. "
                + "Free some space, close other programs that use it, or choose another folder with --data.",
                failure);
        }
    }

    /// <summary>This machine first, then the stand-ins.</summary>
    public async Task<IReadOnlyList<Machine>> MachinesAsync() =>
        [ThisMachine.Describe(system), .. await documents.MachinesAsync()];

    public async Task<IReadOnlyList<Timeline>> TimelinesAsync() => [.. (await documents.TimelinesAsync()).Select(stored => stored.Timeline)];

    /// <exception cref="UnknownThingException">There is no such timeline.</exception>
    public async Task<Timeline> TimelineAsync(string id) => (await Timelines.FindAsync(id)).Timeline;

    /// <exception cref="UnknownThingException">There is no such clip.</exception>
    public Clip Clip(string id) =>
        Clips.Clips.GetValueOrDefault(id) ?? throw new UnknownThingException("clip", id, Clips.Clips.Keys);

    /// <exception cref="UnknownThingException">There is no such machine.</exception>
    public async Task<Machine> MachineAsync(string id)
    {
        var all = await MachinesAsync();
        return all.FirstOrDefault(machine => machine.Id == id)
            ?? throw new UnknownThingException("machine", id, all.Select(machine => machine.Id));
    }

    /// <summary>Puts a plan together and checks it.</summary>
    /// <exception cref="UnknownThingException">There is no such timeline or machine.</exception>
    /// <exception cref="PlanRefusedException">It cannot be played as it stands.</exception>
    public async Task<PlaybackPlan> PlanAsync(string timelineId, string machineId, PlaybackSettings settings) =>
        new PlaybackPlan(await TimelineAsync(timelineId), Clips.Clips, await MachineAsync(machineId), settings).Checked();

    /// <summary>Plays a plan on its machine, real or stand-in, with the aids that its settings ask for, and keeps the run
    /// while it plays.</summary>
    /// <param name="place">The run's place in a trial, or null.</param>
    public async Task<StoredRun> PlayAsync(PlaybackPlan plan, IRunListener? listener, CancellationToken stop, RunPlace? place = null)
    {
        var keeper = new RunKeeper(Runs, listener, place);
        try
        {
            return await keeper.FinishAsync(await PlayerFor(plan.Machine).PlayAsync(WithAids(plan), keeper, stop));
        }
        catch
        {
            await keeper.AbandonAsync();
            throw;
        }
    }

    /// <summary>Makes the aids that a plan's settings ask for and that are missing: proxies of its clips, renders of its
    /// passages. Stand-ins need none.</summary>
    /// <param name="passage">Pre-renders: only this passage, from 0; null for all.</param>
    /// <returns>What was asked for, made now or before.</returns>
    /// <exception cref="MakingException">One could not be made; those before it are kept.</exception>
    public async Task<IReadOnlyList<AidNote>> MakeAidsAsync(
        PlaybackPlan plan, int? passage, IProgress<MakingProgress>? progress, CancellationToken stop)
    {
        var notes = new List<AidNote>();
        var clips = plan.Settings.Proxies == Proxies.None ? [] : plan.Timeline.ClipIds;
        var passages = !plan.Settings.PreRenders ? []
            : passage is { } one ? [one]
            : Enumerable.Range(0, plan.Timeline.Passages.Count).ToList();
        var all = clips.Count + passages.Count;
        foreach (var id in clips)
        {
            progress?.Report(new MakingProgress($"proxy of {id}", notes.Count, all, (double)notes.Count / all));
            var clip = plan.Clips[id];
            notes.Add(await new ProxyMaker(Aids).MakeAsync(clip, Clips.PathOf(clip), plan.Settings.Proxies, stop));
        }

        foreach (var index in passages)
        {
            var done = notes.Count;
            var share = new Progress<double>(part => progress?.Report(
                new MakingProgress($"pre-render of passage {index + 1}", done, all, (done + part) / all)));
            notes.Add(await new PreRenderer(Aids, new HostPictures(program, Clips, Effects)).RenderAsync(plan, index, share, stop));
        }

        progress?.Report(new MakingProgress(null, all, all, 1));
        return notes;
    }

    /// <summary>The render of each passage as the plan stands, or null where there is none.</summary>
    public IReadOnlyList<AidNote?> Renders(PlaybackPlan plan) =>
        [.. plan.Timeline.Passages.Select((_, index) => Aids.Find(PreRenderer.KeyOf(plan, index)))];

    /// <summary>Stand-ins take proxies as they would be; this machine plays what is made.</summary>
    private PlaybackPlan WithAids(PlaybackPlan plan) =>
        plan.Machine.Kind == MachineKind.StandIn ? StandInAids.Apply(plan) : Aids.Apply(plan);

    /// <summary>Pins an observation to a moment of a run, in play or ended.</summary>
    /// <param name="at">From the key; null to go by the frame.</param>
    /// <param name="frame">Timeline frame; null to go by the moment. Without either it is the newest moment kept.</param>
    /// <exception cref="UnknownThingException">There is no such run.</exception>
    /// <exception cref="PlanRefusedException">The moment lies outside the run, or the text is too long.</exception>
    public async Task<RunMark> MarkAsync(long runId, TimeSpan? at, int? frame, MarkKind kind, string text)
    {
        var run = (await Runs.FindAsync(runId))?.Run ?? throw new UnknownThingException("run", $"{runId}", []);
        return await Runs.MarkAsync(runId, RunMoments.Mark(run, at, frame, kind, text));
    }

    /// <summary>Which machine to take for a timeline at full scale, by what has been played with its clips as they are. Nothing is
    /// played for it.</summary>
    public async Task<Pick> AdviseAsync(string timelineId)
    {
        var (timeline, candidates) = (await TimelineAsync(timelineId), new List<Candidate>());
        foreach (var machine in await MachinesAsync())
        {
            var (_, run) = await NewestAsync(timeline, machine);
            candidates.Add(Candidate.Of(machine, run?.Run));
        }

        return Pick.From(candidates);
    }

    /// <summary>Plays a timeline on every stand-in that has not played it yet with its clips as they are.</summary>
    /// <param name="played">Called whenever one has.</param>
    /// <returns>How many played.</returns>
    public async Task<int> PlayStandInsAsync(string timelineId, CancellationToken stop, Func<Task>? played = null)
    {
        // One after another, so that two who ask at once do not both play what is missing.
        await advising.WaitAsync(stop);
        try
        {
            var (timeline, count) = (await TimelineAsync(timelineId), 0);
            foreach (var machine in (await MachinesAsync()).Where(machine => machine.Kind == MachineKind.StandIn))
            {
                if (await NewestAsync(timeline, machine) is (var plan, null))
                {
                    await PlayAsync(plan, null, stop);
                    count++;
                    await (played?.Invoke() ?? Task.CompletedTask);
                }
            }

            return count;
        }
        finally
        {
            advising.Release();
        }
    }

    /// <summary>A bare plan for a machine, and its newest run; null where there is none with the clips as they are: those made or measured
    /// since then have other figures than those a stand-in went by.</summary>
    /// <exception cref="PlanRefusedException">The timeline cannot be played as it stands.</exception>
    private async Task<(PlaybackPlan Plan, StoredRun? Run)> NewestAsync(Timeline timeline, Machine machine)
    {
        var plan = new PlaybackPlan(timeline, Clips.Clips, machine, new PlaybackSettings()).Checked();
        var run = await Runs.NewestBareAsync(TimelineJson.Digest(timeline), machine.Id);
        return (plan, run is null || (machine.Kind == MachineKind.StandIn && !plan.ClipChecksums.SequenceEqual(run.Run.Header.ClipChecksums)) ? null : run);
    }

    public void Dispose()
    {
        Players.Dispose();
        advising.Dispose();
    }

    private IPlayback PlayerFor(Machine machine) => machine.Kind == MachineKind.StandIn
        ? new StandInPlayback(TimeProvider.System)
        : new HostPlayback(Players, Aids, Effects, Folder.Path, PagesHere?.Invoke());

    /// <summary>How many pages of the product are open on this machine; null where nobody knows.</summary>
    public Func<int>? PagesHere { get; set; }

    private EffectPlaces Effects => new(Folder.Looks, Fonts.ForTitles);

    /// <summary>How this player does effects.</summary>
    public EffectFilters Filters => new(Folder.Looks, Fonts.ForTitles);
}

/// <summary>Something was asked for by an id that nothing has.</summary>
public sealed class UnknownThingException(string kind, string id, IEnumerable<string> known)
    : Exception($"There is no {kind} '{id}'. Known: {string.Join(", ", known)}.");
