using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Exports;

namespace HardyBench.Core.StandIns;

/// <summary>What a sampler would have read off a stand-in while it played.</summary>
public static class StandInLoads
{
    public static IReadOnlyList<LoadReading> Of(
        PlaybackPlan plan,
        IReadOnlyList<PassageDemand> demands,
        Simulation simulation,
        IReadOnlyList<FrameRecord> frames)
    {
        var loads = new List<LoadReading>();
        var intervals = (int)Math.Ceiling(simulation.End / BusyLedger.Interval);
        var worksAlone = demands.SelectMany(demand => demand.Visits).Any(visit => visit.Station is Station.OneCore or Station.DecoderCores);
        var units = (All: plan.Machine.Composing.Count, Working: CostModel.UnitsComposing(plan));
        for (var index = 0; index < intervals; index++)
        {
            var at = BusyLedger.Interval * (index + 1);
            var demand = demands[PassageAt(plan, frames, at)];
            AddProcessor(loads, plan, simulation, index, at, worksAlone);
            AddGraphics(loads, plan, units, simulation, demand, index, at);
            AddMemoryAndDrive(loads, plan, simulation, demand, index, at);

            // Every interval has as many: the list of a long run does not grow by copies.
            loads.EnsureCapacity(index == 0 ? loads.Count * intervals : 0);
        }

        loads.AddRange(frames.Where(frame => frame.Shown is null && frame.Read + frame.Decode + frame.Effects > TimeSpan.Zero)
            .Select(frame => new LoadReading(
                frame.SlotStart,
                LoadKind.WastedWork,
                0,
                (float)(frame.Read + frame.Decode + frame.Effects).TotalSeconds
            )));
        return new LoadsInOrder(loads).All;
    }

    private static void AddProcessor(
        List<LoadReading> loads, PlaybackPlan plan, Simulation simulation, int index, TimeSpan at, bool worksAlone)
    {
        var (machine, busy) = (plan.Machine, simulation.Busy);
        var cores = machine.Processor.Cores;
        var (others, taken) = (plan.Settings.Others, plan.ShareOfOthers);
        for (var core = 0; core < cores; core++)
        {
            loads.Add(new LoadReading(at, LoadKind.Core, core, (float)BusyLedger.WithOthers(busy.CoreShare(core, index, cores), taken)));
        }

        // While it works the player has only its turns.
        var alone = busy.Share(Station.OneCore, index) / (others?.Slowing(1, cores) ?? 1);
        var decoding = busy.CoresDecoding(index);
        var left = Math.Max(0, cores - alone - decoding) / (others?.Slowing(cores, cores) ?? 1);
        var decode = busy.Share(Station.Processor, VisitKind.Decode, index) * left + decoding;
        var effects = busy.Share(Station.Processor, VisitKind.Effects, index) * left + alone;
        if (worksAlone)
        {
            loads.Add(new LoadReading(at, LoadKind.OwnThread, 0, (float)Math.Max(alone, busy.Share(Station.DecoderCores, index))));
        }

        var encode = busy.Share(Station.Processor, VisitKind.Encode, index) * left;
        loads.Add(new LoadReading(at, LoadKind.OwnProcess, 0, (float)(decode + effects + encode)));
        loads.Add(new LoadReading(at, LoadKind.OwnDecode, 0, (float)decode));
        loads.Add(new LoadReading(at, LoadKind.OwnEffects, 0, (float)effects));
        if (plan.Export is not null)
        {
            loads.Add(new LoadReading(at, LoadKind.OwnEncode, 0, (float)encode));
        }

        if (index < simulation.HeatByInterval.Count && machine.Processor.ClockGigahertz is { } gigahertz)
        {
            var (celsius, clockShare, watts) = simulation.HeatByInterval[index];
            loads.Add(new LoadReading(at, LoadKind.PackagePower, 0, (float)watts));
            if (machine.PowerLimit is { } limit)
            {
                loads.Add(new LoadReading(at, LoadKind.PowerLimit, 0, (float)limit));
            }

            loads.Add(new LoadReading(at, LoadKind.Temperature, 0, (float)celsius));
            loads.Add(new LoadReading(at, LoadKind.Clock, 0, (float)(gigahertz * 1e9 * clockShare)));
            loads.Add(new LoadReading(at, LoadKind.RatedClock, 0, (float)(gigahertz * 1e9)));
            if (Heat.FanAt(machine.Cooling!, celsius) is { } turns)
            {
                loads.Add(new LoadReading(at, LoadKind.FanSpeed, 0, (float)turns));
            }
        }
    }

    private static void AddGraphics(
        List<LoadReading> loads, PlaybackPlan plan, (int All, int Working) units, Simulation simulation, PassageDemand demand, int index,
        TimeSpan at)
    {
        var (machine, busy) = (plan.Machine, simulation.Busy);
        for (var unit = 0; unit < units.All; unit++)
        {
            var share = unit < units.Working ? busy.Share(Station.Graphics, index) / units.Working : 0;
            loads.Add(new LoadReading(at, LoadKind.GraphicsBusy, unit, (float)share));
            var fitted = machine.Graphics[0].MemoryGigabytes * 1e9;
            var used = unit < units.Working ? Math.Min(fitted, demand.GraphicsMemoryBytes) : 0;
            loads.Add(new LoadReading(at, LoadKind.GraphicsMemoryUsed, unit, (float)used));
            loads.Add(new LoadReading(at, LoadKind.GraphicsMemoryFitted, unit, (float)fitted));
        }

        if (units.All > 0 && machine.Graphics[0].BusGigabytesPerSecond is not null)
        {
            loads.Add(new LoadReading(at, LoadKind.BusBusy, 0, (float)busy.Share(Station.Bus, index)));
        }

        for (var engine = 0; engine < machine.MediaEngines.Count; engine++)
        {
            var share = engine < demand.Engines ? busy.Share(Station.MediaEngine, index) / demand.Engines : 0;
            loads.Add(new LoadReading(at, LoadKind.MediaEngineBusy, engine, (float)share));
        }

        if (plan.Export is { Encoder: EncoderPlace.MediaEngine })
        {
            loads.Add(new LoadReading(at, LoadKind.EncoderBusy, 0, (float)busy.Share(Station.EncodingEngine, index)));
        }
    }

    private static void AddMemoryAndDrive(
        List<LoadReading> loads, PlaybackPlan plan, Simulation simulation, PassageDemand demand, int index, TimeSpan at)
    {
        var (machine, busy) = (plan.Machine, simulation.Busy);
        var fitted = machine.Memory.Gigabytes * 1e9;
        var used = Math.Min(fitted, (machine.Memory.InUseGigabytes + (plan.Settings.Others?.Gigabytes ?? 0)) * 1e9 + demand.MemoryBytes);
        loads.Add(new LoadReading(at, LoadKind.MemoryUsed, 0, (float)used));
        loads.Add(new LoadReading(at, LoadKind.MemoryFitted, 0, (float)fitted));
        if (machine.DriveFor(DriveRole.Media) is not { } drive)
        {
            return;
        }

        var swapDrive = machine.DriveFor(DriveRole.System)!;
        var isOne = ReferenceEquals(drive, swapDrive);
        var share = busy.Share(Station.Drive, index);
        var bytes = demand.ReadBytesPerFrame + (isOne ? demand.SwapBytesPerFrame : 0);
        var perSecond = bytes > 0 ? share * drive.ReadMegabytesPerSecond * 1e6 : 0;
        loads.Add(new LoadReading(at, LoadKind.DriveBusy, 0, (float)share));
        loads.Add(new LoadReading(at, LoadKind.DriveRead, 0, (float)(bytes > 0 ? perSecond * demand.ReadBytesPerFrame / bytes : 0)));
        var swapShare = busy.Share(Station.SwapDrive, index);
        loads.Add(new LoadReading(at, LoadKind.SwapTraffic, 0, (float)(isOne
            ? bytes > 0 ? perSecond * demand.SwapBytesPerFrame / bytes : 0
            : swapShare * swapDrive.ReadMegabytesPerSecond * 1e6)));
        if (!isOne)
        {
            loads.Add(new LoadReading(at, LoadKind.DriveBusy, 1, (float)swapShare));
        }
    }

    /// <summary>The passage on screen at a moment: that of the last slot begun by then.</summary>
    private static int PassageAt(PlaybackPlan plan, IReadOnlyList<FrameRecord> frames, TimeSpan at)
    {
        var (low, high) = (0, frames.Count - 1);
        while (low < high)
        {
            var middle = (low + high + 1) / 2;
            (low, high) = frames[middle].SlotStart <= at ? (middle, high) : (low, middle - 1);
        }

        return plan.Timeline.PassageIndexAt(frames[low].Frame);
    }
}
