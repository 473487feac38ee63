using HardyBench.Core;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback.Programs;
using HardyBench.Formats.PlayerProtocol;
using HardyBench.Media.Aids;
using HardyBench.Media.Clips;
using HardyBench.Media.EffectFiles;
using HardyBench.Store;
using HardyBench.Telemetry;
using HardyBench.Workbench.Advice;
using HardyBench.Workbench.Aids;
using HardyBench.Workbench.Calibration;
using HardyBench.Workbench.Comparing;
using HardyBench.Workbench.Data;
using HardyBench.Workbench.Deleted;
using HardyBench.Workbench.Demo;
using HardyBench.Workbench.Exports;
using HardyBench.Workbench.Machines;
using HardyBench.Workbench.Packs;
using HardyBench.Workbench.Playing;
using HardyBench.Workbench.Plays;
using HardyBench.Workbench.Programs;
using HardyBench.Workbench.Timelines;
using HardyBench.Workbench.Trials;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace HardyBench.Workbench;

/// <summary>The jobs of the product over one data folder, put together; each noun has its room.</summary>
public sealed class Bench : IDisposable
{
    private readonly DocumentStore documents;
    private readonly ShelfStore<Machine> machines;
    private readonly ShelfStore<EditingProgram> programs;
    private readonly ShelfStore<Brief> briefs;
    private readonly ShelfStore<Part> parts;
    private IDisposable? use;

    private Bench(
        DataFolder folder, BenchDatabaseFactory databases, IReadOnlyList<ClipRecipe> pack, CalibrationPack calibration, string? watched,
        HostJobs host)
    {
        Folder = folder;
        (Runs, RunList, RunWriter) = (new RunReader(databases), new RunList(databases), new RunWriter(databases));
        RunJudging = new RunJudging(databases, RunWriter);
        documents = new DocumentStore(databases);
        Clips = new ClipFolder(folder.Clips, pack, new OwnClips(folder.Own, watched));
        ClipCreator = new ClipCreator(Clips);
        (machines, programs) = (Shelves.Machines(databases), Shelves.Programs(databases));
        (briefs, parts) = (Shelves.Briefs(databases), Shelves.Parts(databases));
        Deleted = new DeletedJobs(new DeletedStore(databases), RunWriter, Clips.Own!);
        Machines = new MachineJobs(machines, documents, host);
        Programs = new ProgramJobs(programs);
        Timelines = new TimelineJobs(documents, () => Clips.Clips);
        Sheets = new SheetJobs(Timelines, Machines, Runs);
        Comparisons = new CompareJobs(Runs);
        Grids = new GridJobs(Timelines, Machines, Runs);
        Packs = new PackJobs(folder, Clips, Timelines);
        var program = new PlayerProgram(
            [folder.Clips, folder.Own, folder.Aids, folder.Looks, .. watched is null ? Array.Empty<string>() : [watched]],
            folder.Players
        );
        var (aids, effects) = (new AidFolder(folder.Aids, Clips), new EffectPlaces(folder.Looks, Fonts.ForTitles));
        Players = new Players(program);
        Aids = new AidJobs(aids, Clips, program, effects);
        Plays = new PlayJobs(Timelines, Machines, Clips, Aids, Runs, RunWriter, Players, aids, effects, Storage,
            new ExportPlayback(program, aids, effects, folder.Path), folder.Path);
        Calibrations = new CalibrationJobs(
            Shelves.Calibrations(databases), Shelves.Predictions(databases), machines, Runs, calibration,
            new ClipFolder(folder.Clips, calibration.Recipes), Players, effects, host, folder.Path);
        Plays.Played = Calibrations.PredictAsync;
        Trials = new TrialJobs(Machines, Clips, Aids, Plays, Runs, new TrialStore(databases), Storage);
        Advice = new AdviceJobs(Timelines, Machines, Clips, Runs, Plays);
        (Briefs, Catalogue) = (new BriefJobs(briefs), new CatalogueJobs(parts));
        Answers = new AnswerJobs(
            Catalogue, Timelines, Machines, Programs, Clips, Runs, async () => (await Calibrations.CurrentAsync())?.Twin);
    }

    public DataFolder Folder { get; }

    public RunReader Runs { get; }

    public RunWriter RunWriter { get; }

    public RunJudging RunJudging { get; }

    public RunList RunList { get; }

    /// <exception cref="UnknownThingException">There is no such run; the message names the newest.</exception>
    public async Task<StoredRun> FindRunAsync(long id) =>
        await Runs.FindAsync(id)
        ?? throw new UnknownThingException("run", $"{id}", (await RunList.PageAsync(new RunQuery(Take: 5))).Runs.Select(run => $"{run.Id}"));

    public ClipFolder Clips { get; }

    public ClipCreator ClipCreator { get; }

    public DeletedJobs Deleted { get; }

    /// <summary>Whether what has to be saved waits for the drive.</summary>
    public StorageWait Storage { get; } = new(TimeProvider.System);

    public MachineJobs Machines { get; }

    public ProgramJobs Programs { get; }

    public TimelineJobs Timelines { get; }

    public SheetJobs Sheets { get; }

    public CompareJobs Comparisons { get; }

    public GridJobs Grids { get; }

    public PackJobs Packs { get; }

    public AidJobs Aids { get; }

    public PlayJobs Plays { get; }

    public CalibrationJobs Calibrations { get; }

    public TrialJobs Trials { get; }

    public AdviceJobs Advice { get; }

    public BriefJobs Briefs { get; }

    public CatalogueJobs Catalogue { get; }

    public AnswerJobs Answers { get; }

    /// <summary>Processes that play on this machine.</summary>
    public Players Players { get; }

    /// <summary>Runs that were found broken off when the folder was opened; each is kept up to its last second.</summary>
    public IReadOnlyList<long> CutShort { get; private set; } = [];

    /// <summary>Runs that were found damaged when the folder was opened, or judged again since; each was left as it is and counts
    /// nowhere.</summary>
    public IReadOnlyList<UnreadableRun> Unreadable { get; private set; } = [];

    /// <summary>Judges runs that were judged by earlier rules again, the newest first. Those that are not reached are judged after the next
    /// start.</summary>
    /// <param name="progress">How many of how many are judged.</param>
    /// <param name="turn">Waits until a run may be judged; what it returns is disposed after it.</param>
    public async Task JudgeAgainAsync(
        CancellationToken stop, Action<int, int>? progress = null, Func<CancellationToken, Task<IDisposable>>? turn = null)
    {
        var ids = await RunJudging.ToJudgeAsync();
        foreach (var (place, id) in ids.Index())
        {
            stop.ThrowIfCancellationRequested();
            using var mine = turn is null ? null : await turn(stop);
            if (await RunJudging.JudgeAgainAsync(id) is { } damaged)
            {
                Unreadable = [.. Unreadable, damaged];
            }

            progress?.Invoke(place + 1, ids.Count);
        }
    }

    /// <summary>Opens a data folder, brings it up to date, and sets out the demo data that is not in it yet.</summary>
    /// <param name="small">Whether to use the small pack and a timeline to match.</param>
    /// <exception cref="DataFolderException">It cannot be used.</exception>
    /// <param name="watched">A folder of somebody's own clips, or null.</param>
    /// <param name="interceptors">What sees every access to the database.</param>
    public static async Task<Bench> OpenAsync(
        string path, bool small, CancellationToken stop, string? watched = null, params IInterceptor[] interceptors)
    {
        var folder = new DataFolder(path);
        using var opening = await FolderUse.OpeningAsync(folder, stop);
        using (var alone = FolderUse.TryTakeExclusive(folder))
        {
            // Whoever made these has ended.
            foreach (var left in alone is null ? [] : folder.Unfinished().ToList())
            {
                DataFolder.Discard(left);
            }
        }

        var use = FolderUse.Together(folder);
        try
        {
            Looks.WriteTo(folder.Looks);
            folder.MakeReady();
            var databases = new BenchDatabaseFactory(folder.Database, interceptors);
            await databases.MigrateAsync(stop);
            var now = DateTimeOffset.UtcNow;
            await new RunWriter(databases).RemoveExpiredAsync(now);
            await new DeletedStore(databases).RemoveOldAsync(now);
            var bench = new Bench(folder, databases, small ? StarterPack.Small : StarterPack.Full,
                small ? CalibrationPack.Small : CalibrationPack.Full, watched,
                await HostJobs.RecogniseAsync(new HostStore(databases), SystemFiles.Live, now)) { use = use };
            bench.Clips.Own!.RemoveDeletedBefore((now - DeletedStore.RestorableFor).UtcDateTime);
            await bench.Clips.Own!.LookAsync(stop);
            await bench.RunJudging.RecomputeDigestsAsync();
            (bench.CutShort, var damaged) = await new RunRecovery(databases, bench.RunWriter).RecoverAsync();
            bench.Unreadable = damaged;
            await bench.Trials.RecoverAsync();
            var (hd, uhd, seconds) = small ? (Raster.Hd.DividedBy(3), Raster.Uhd.DividedBy(3), 3) : (Raster.Hd, Raster.Uhd, 6);
            await bench.documents.AddShippedAsync([DemoTimelines.TouringNight(hd, seconds), DemoTimelines.ClosingGala(uhd, seconds)]);
            await bench.machines.AddShippedAsync(DemoMachines.All);
            await bench.programs.AddShippedAsync(DemoPrograms.All);
            await bench.briefs.AddShippedAsync(DemoBriefs.All);
            await bench.parts.AddShippedAsync(DemoParts.All);
            return bench;
        }
        catch (NewerDataException newer)
        {
            use.Dispose();
            throw new DataFolderException(
                $"The data in {folder.Path} was written by a newer Hardy Bench. Nothing was changed. Use that one, or choose another "
                    + "folder with --data.",
                newer
            );
        }
        catch (Exception failure) when (failure is Microsoft.Data.Sqlite.SqliteException or IOException
            or Microsoft.EntityFrameworkCore.DbUpdateException)
        {
            use.Dispose();
            throw new DataFolderException(
                $"The data in {folder.Path} cannot be opened: {failure.GetBaseException().Message} Nothing was changed. "
                + "Free some space, close other programs that use it, or choose another folder with --data.",
                failure);
        }
    }

    public void Dispose()
    {
        Players.Dispose();
        Advice.Dispose();
        Answers.Dispose();
        use?.Dispose();
    }
}
