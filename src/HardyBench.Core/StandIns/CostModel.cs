using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Exports;
using HardyBench.Core.Playback.Programs;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.StandIns;

/// <summary>Turns a passage and a machine into what each frame asks of each station.</summary>
public static class CostModel
{
    /// <summary>Share of a graphics unit's peak that picture work reaches. Common practice, no source.</summary>
    private const double ReachedShareOfPeak = 0.25;

    /// <summary>Time to start one effect on a graphics unit.</summary>
    private static readonly TimeSpan GraphicsLaunch = TimeSpan.FromMicroseconds(20);

    /// <summary>Bytes a pixel takes while effects work on it: four components of 16 bits.</summary>
    private const double WorkingBytesPerPixel = 8;

    /// <summary>Positions of a GOP that are kept separately, so that very long GOPs stay cheap to hold.</summary>
    private const int MaxPositions = 300;

    /// <summary>Decoders that keep more of the cores busy than this leave none to work beside them.</summary>
    private const double LeavesNone = 0.75;

    private static readonly OtherPrograms Nothing = new(0, 0);

    /// <summary>In place of a position of a GOP: the mean over all of them.</summary>
    private const int Mean = -1;

    /// <summary>Of every passage, as it is played.</summary>
    /// <param name="meansOnly">Whether only means over GOPs are wanted, which are found without looking at each position where work adds
    /// up.</param>
    public static IReadOnlyList<PassageDemand> DemandsOf(PlaybackPlan plan, bool meansOnly = false) =>
        [.. plan.Timeline.Passages.Select((_, index) => DemandOf(plan, plan.Played(index), meansOnly))];

    /// <inheritdoc cref="DemandsOf"/>
    public static PassageDemand DemandOf(PlaybackPlan plan, Passage passage, bool meansOnly = false)
    {
        var machine = plan.Machine;
        var layers = LayersOf(plan, passage);
        var program = plan.Settings.Program;
        var onEngine = layers.Where(stream => EnginesFor(plan, stream.Format).Count > 0).ToList();
        var onProcessor = layers
            .Where(stream => EnginesFor(plan, stream.Format).Count == 0)
            .Select(stream => stream with { Format = DecodedAs(plan, stream.Format) })
            .ToList();
        // A stream keeps to one engine, so no more of them work than there are streams.
        var engines = machine.MediaEngines.Where(engine => onEngine.TrueForAll(stream => engine.RefusalOf(stream.Format) is null)).ToList();
        engines = [.. (engines.Count > 0 ? engines : machine.MediaEngines).Take(Math.Max(1, onEngine.Count))];
        var composesOnGraphics = program?.ComposesOn != ComposingPlace.Processor && plan.Settings.EffectsOn != WorkPlace.Processor;
        var graphics = composesOnGraphics ? machine.MainGraphics : null;
        var (media, swapDrive) = (
            machine.DriveFor(StandInAids.IsRendered(passage) ? DriveRole.Renders : DriveRole.Media),
            machine.DriveFor(DriveRole.System)
        );
        var (memory, reserved) = (MemoryBytes(plan, passage, layers), (program?.ReservesGigabytes ?? 0) * 1e9);
        var (others, cores) = (plan.Settings.Others ?? Nothing, machine.Processor.Cores);
        var swap = SwapBytes(machine.Memory, memory, reserved + others.Gigabytes * 1e9, layers);
        var readBytes = layers.Sum(stream =>
            stream.Speed * stream.Format.DataRate.BitsPerSecond / 8.0 / plan.Timeline.Rate.FramesPerSecond
        );
        var effects = Effects(plan, passage, layers);

        var fewCores = FewCores(onProcessor, plan);
        // Of several decoders side by side the longest counts, which is another one at each position.
        var addsUp = onProcessor.Count <= 1 || (fewCores is null && MeasuredCores(plan) is null);
        int[] positions = meansOnly && addsUp
            ? [Mean]
            : [.. Enumerable.Range(0, Math.Min(MaxPositions, KeyInterval(layers, plan.Timeline.Rate)))];
        var visits = new List<Visit>();
        var sameDrive = ReferenceEquals(media, swapDrive);
        Add(Station.Drive, VisitKind.Read, _ => media is { } drive
            ? (readBytes + (sameDrive ? swap : 0)) / (drive.ReadMegabytesPerSecond * 1e6) + SeekSeconds(drive, layers.Count)
            : 0);
        Add(Station.SwapDrive, VisitKind.Read, _ => swapDrive is { } drive && !sameDrive ? swap / (drive.ReadMegabytesPerSecond * 1e6) : 0);
        Add(Station.MediaEngine, VisitKind.Decode, _ => onEngine.Sum(stream =>
            stream.DecodedPerFrame(plan.Timeline.Rate) * stream.Format.Raster.Pixels
            / (engines.Average(engine => engine.MegapixelsPerSecond) * 1e6)));
        Add(
            fewCores is null ? Station.Processor : Station.DecoderCores, VisitKind.Decode,
            position => fewCores is var (most, busy)
                ? Longest(onProcessor, position, plan, most) * others.Slowing(busy, cores)
                : Shared(onProcessor, position, plan) * others.Slowing(cores, cores)
        );
        // What is decoded in one place and treated in the other has to go over.
        var goingOver = composesOnGraphics ? onProcessor : onEngine;
        Add(Station.Bus, VisitKind.Copy, _ => machine.MainGraphics?.BusGigabytesPerSecond is { } bus
            ? (goingOver.Sum(stream => stream.Format.BytesPerDecodedFrame) + GraphicsOverflowBytes(plan, passage, graphics)) / (bus * 1e9)
            : 0);
        Add(Station.Processor, VisitKind.Effects, _ =>
            ProcessorSeconds(plan, effects.OnProcessor, machine.Processor.InFastCores) * others.Slowing(cores, cores));
        Add(Station.OneCore, VisitKind.Effects, _ => ProcessorSeconds(plan, effects.OnOneCore, 1) * others.Slowing(1, cores));
        Add(Station.Graphics, VisitKind.Effects, _ => GraphicsSeconds(plan, effects.OnGraphics));
        if (plan.Export is { } export)
        {
            // An encoder looks back and ahead; what memory could not hold of that it waits for.
            var fetching = swapDrive is { } drive ? swap / (drive.ReadMegabytesPerSecond * 1e6) : 0;
            var (station, slowing) = export.Encoder == EncoderPlace.Processor
                ? (Station.Processor, others.Slowing(cores, cores))
                : (Station.EncodingEngine, 1);
            Add(station, VisitKind.Encode, _ => EncodeSeconds(plan, export) * slowing + fetching);
        }

        return new PassageDemand(
            passage.FrameCount,
            visits,
            KeyInterval(layers, plan.Timeline.Rate),
            memory + reserved,
            graphics is null ? 0 : GraphicsMemoryBytes(plan, passage),
            readBytes,
            swap,
            [.. onProcessor.Select(stream => RefusalOf(plan, stream.Format)).OfType<EngineRefusal>().Distinct()])
        {
            Engines = Math.Max(1, engines.Count),
            Cores = machine.Processor.InFastCores,
            CoresDecoding = fewCores is var (_, kept) ? kept / others.Slowing(kept, cores) : 0,
        };

        void Add(Station station, VisitKind kind, Func<int, double> seconds)
        {
            double[] byPosition = kind == VisitKind.Decode ? [.. positions.Select(seconds)] : [seconds(0)];
            if (byPosition.Max() > 0)
            {
                visits.Add(new Visit(station, kind, [.. byPosition.Select(s => TimeSpan.FromSeconds(s))]));
            }
        }
    }

    /// <summary>The engines that decode a format: those that take it, where the editing program hands it over and engines may work at
    /// all.</summary>
    internal static IReadOnlyList<MediaEngine> EnginesFor(PlaybackPlan plan, ClipFormat format) =>
        plan.Settings.DecodeOn == WorkPlace.Processor || plan.Settings.Program?.SendsToEngine(format) == false
            ? []
            : plan.Machine.EnginesFor(format);

    /// <summary>Why none does though there is one and it may work; null where one does.</summary>
    internal static EngineRefusal? RefusalOf(PlaybackPlan plan, ClipFormat format) =>
        plan.Settings.DecodeOn == WorkPlace.Processor ? null
        : plan.Machine.RefusalOf(format)
        ?? (plan.Machine.MediaEngines.Count > 0 && EnginesFor(plan, format).Count == 0
            ? new EngineRefusal(MissingCapability.Program, format) : null);

    /// <summary>Graphics units that share frames out: one where none composes.</summary>
    internal static int UnitsSharing(PlaybackPlan plan) => Math.Max(1, UnitsComposing(plan));

    /// <summary>Graphics units that compose pictures together.</summary>
    internal static int UnitsComposing(PlaybackPlan plan) => plan.Settings switch
    {
        { EffectsOn: WorkPlace.Processor } or { Program.ComposesOn: ComposingPlace.Processor } => 0,
        { Program.GraphicsUnits: var most } => Math.Min(most, plan.Machine.Composing.Count),
        _ => plan.Machine.Composing.Count,
    };

    /// <summary>Where the effects of a passage run, by their ids: <see cref="WorkPlace.Graphics"/> or
    /// <see cref="WorkPlace.Processor"/>.</summary>
    internal static IEnumerable<(string Effect, string Place)> PlacesOf(PlaybackPlan plan, Passage passage)
    {
        var effects = Effects(plan, passage, LayersOf(plan, passage));
        return effects.OnGraphics.Select(piece => (piece.Work, Place: WorkPlace.Graphics))
            .Concat(effects.OnProcessor.Concat(effects.OnOneCore).Select(piece => (piece.Work, Place: WorkPlace.Processor)));
    }

    private static List<Stream> LayersOf(PlaybackPlan plan, Passage passage) =>
        [.. plan.ClipsOf(passage).Zip(passage.Layers, (clip, layer) => new Stream(clip.Format, layer.Retime))];

    /// <summary>Codecs by wavelets hold smaller pictures inside, and camera raw is put together at any size; a program that makes use of it
    /// saves samples and no bits. Common practice, no source.</summary>
    private static ClipFormat DecodedAs(PlaybackPlan plan, ClipFormat format) =>
        plan.Settings.Program?.DecodesSmaller == true && format.Codec is Codec.Jpeg2000 or Codec.Vc5 or Codec.CameraRaw
            ? format with { Raster = format.Raster.DividedBy((int)plan.Settings.Scale) }
            : format;

    /// <summary>The cores that one decoder may keep busy, and how many all of them do, where that is what decoding takes its time by; null
    /// where all cores together are.</summary>
    private static (double Most, double Busy)? FewCores(List<Stream> streams, PlaybackPlan plan)
    {
        if ((plan.Settings.Program?.DecoderCores ?? plan.Settings.Threads ?? MeasuredCores(plan)) is not { } most || streams.Count == 0)
        {
            return null;
        }

        var longest = Longest(streams, 0, plan, most);
        var busy = OneAfterTheOther(streams, 0, plan) / longest;
        return MeasuredCores(plan) is { } cores
            ? busy > LeavesNone * cores ? null : (most, WithOthersBusy(streams, busy, plan))
            : longest <= Shared(streams, 0, plan) ? null : (most, busy);
    }

    /// <summary>Where it was measured how many cores one decoder keeps busy, the others are free for what works beside it.</summary>
    private static double? MeasuredCores(PlaybackPlan plan) => plan.Machine.Costs is null ? null : plan.Machine.Processor.InFastCores;

    /// <summary>With so many cores for each decoder, side by side.</summary>
    private static double Longest(List<Stream> streams, int position, PlaybackPlan plan, double most) =>
        streams.Max(stream => DecodeSeconds(stream, position, plan, most));

    /// <summary>With every core for one decoder after the other; where it was measured what a decoder leaves free, the others have
    /// it.</summary>
    private static double Shared(List<Stream> streams, int position, PlaybackPlan plan) => streams.Count == 0 ? 0
        : MeasuredCores(plan) is { } cores
        ? Math.Max(Longest(streams, position, plan, cores), OneAfterTheOther(streams, position, plan) / cores)
        : streams.Sum(stream => DecodeSeconds(stream, position, plan, plan.Machine.Processor.InFastCores));

    /// <summary>What works beside a decoder makes every core busy, and so it takes more of them than it would alone.</summary>
    private static double WithOthersBusy(List<Stream> streams, double busy, PlaybackPlan plan) =>
        streams.Count > 1 ? busy : busy / (plan.Machine.Costs?.AllBusy ?? 1);

    /// <summary>Core-seconds of all decoders; those that work side by side have the cores' speed while all are busy.</summary>
    private static double OneAfterTheOther(List<Stream> streams, int position, PlaybackPlan plan) =>
        streams.Sum(stream => DecodeSeconds(stream, position, plan, 1)) / (streams.Count > 1 ? plan.Machine.Costs?.AllBusy ?? 1 : 1);

    private static double DecodeSeconds(Stream stream, int position, PlaybackPlan plan, double cores)
    {
        var (format, processor) = (stream.Format, plan.Machine.Processor);
        var cost = DecodeCost.Of(format, plan.Machine);
        var perFrame = stream.DecodedPerFrame(plan.Timeline.Rate);
        cores = Math.Min(cores, processor.InFastCores);
        var seconds = format.IsAllIntra ? perFrame * cost.Seconds(format, 0, cores)
            : position == Mean ? perFrame * cost.MeanSeconds(format, cores)
            : SourceFramesAt(position, perFrame).Sum(frame => cost.Seconds(format, frame % format.GopLength, cores));
        return seconds / processor.FastSpeed;
    }

    /// <summary>The source frames that become due with a timeline frame.</summary>
    private static IEnumerable<int> SourceFramesAt(int position, double perFrame)
    {
        var (from, to) = ((int)(position * perFrame), (int)((position + 1) * perFrame));
        return Enumerable.Range(from, to - from);
    }

    /// <summary>What the treatment of a frame asks, by where it runs.</summary>
    private static (List<TreatmentPiece> OnGraphics, List<TreatmentPiece> OnProcessor, List<TreatmentPiece> OnOneCore) Effects(
        PlaybackPlan plan, Passage passage, List<Stream> layers)
    {
        IReadOnlyList<ClipFormat> formats = [.. layers.Select(stream => stream.Format)];
        var program = plan.Settings.Program;
        var pieces = TreatmentCost.Of(
            passage, formats, plan.Settings.ProcessedRaster(plan.Timeline.Raster), plan.IsDeep(passage),
            program?.EffectsAt == EffectRaster.Clip ? (int)plan.Settings.Scale : null, program?.InColour == true);
        var onGraphics = UnitsComposing(plan) > 0;
        var byPlace = pieces.ToLookup(piece => piece.RunsOn switch
        {
            EffectPlace.OneCore => Station.OneCore,
            _ when program?.WorksOnOneCore(piece.Work) == true => Station.OneCore,
            EffectPlace.ProcessorOnly => Station.Processor,
            _ => onGraphics ? Station.Graphics : Station.Processor,
        });
        return ([.. byPlace[Station.Graphics]], [.. byPlace[Station.Processor]], [.. byPlace[Station.OneCore]]);
    }

    private static double GraphicsSeconds(PlaybackPlan plan, List<TreatmentPiece> pieces) => pieces.Sum(piece =>
        GraphicsLaunch.TotalSeconds + piece.Cost.Seconds(
            piece.Pixels,
            plan.Machine.Graphics[0].PeakGigaflops * 1e9 * ReachedShareOfPeak,
            plan.Machine.Graphics[0].ReachedBandwidth(plan.Machine.Memory) * 1e9));

    private static double ProcessorSeconds(PlaybackPlan plan, List<TreatmentPiece> pieces, double cores) =>
        pieces.Sum(piece => plan.Machine.Costs?.NanosecondsOf(piece.Work, piece.Deep) is { } measured
            ? measured * 1e-9 * piece.Pixels
            : piece.CoreSeconds) / (cores * plan.Machine.Processor.FastSpeed);

    private static double EncodeSeconds(PlaybackPlan plan, Export export)
    {
        var (written, processor) = (export.Written(plan.Timeline.Raster, plan.Timeline.Rate), plan.Machine.Processor);
        return export.Encoder == EncoderPlace.Processor
            ? EncodeCost.Of(export.Format).CoreSeconds(written.Raster) / processor.FastSpeed
                / EncodeCost.Of(export.Format).SpeedUp(processor.InFastCores)
            : written.Raster.Pixels / (plan.Machine.EncodersOf(written).Max(engine => engine.EncodedMegapixelsPerSecond ?? 0) * 1e6);
    }

    private static IEnumerable<EffectKind> KindsOf(Passage passage) =>
        passage.AllEffects()
            .Select(effect => EffectCatalogue.Find(effect.Id)).OfType<EffectKind>();

    /// <summary>Several streams on one mechanical drive make it seek for each of them.</summary>
    private static double SeekSeconds(Drive drive, int streams) => streams > 1 ? drive.LatencyMilliseconds / 1000 * streams : 0;

    /// <summary>Timeline frames until decoding of all layers can start afresh.</summary>
    private static int KeyInterval(List<Stream> layers, FrameRate timeline) =>
        layers.Max(stream => stream.Format.IsAllIntra || stream.Speed <= 0
            ? 1
            : Math.Max(1, (int)Math.Ceiling(stream.Format.GopLength / stream.RunningPerFrame(timeline))));

    private static double MemoryBytes(PlaybackPlan plan, Passage passage, List<Stream> layers)
    {
        var decoded = layers.Sum(stream => stream.Format.BytesPerDecodedFrame) * (PlaybackSettings.DecodeAhead + ReferenceFrames);
        return decoded + WorkingBytes(plan) * (plan.Settings.LookAhead + HeldFrames(passage))
            + (plan.Export is { } export ? EncoderBytes(plan, export) : 0);
    }

    /// <summary>Frames that an encoder holds to look back at and ahead into.</summary>
    private static double EncoderBytes(PlaybackPlan plan, Export export) =>
        export.Written(plan.Timeline.Raster, plan.Timeline.Rate).BytesPerDecodedFrame
            * (export.Encoder == EncoderPlace.Processor ? EncodeCost.Of(export.Format).HeldFrames : EncodeCost.HeldByEngine);

    private static double GraphicsMemoryBytes(PlaybackPlan plan, Passage passage) =>
        WorkingBytes(plan) * (passage.Layers.Count + plan.Settings.LookAhead + HeldFrames(passage));

    /// <summary>Bytes a frame that go to main memory and back because they do not fit into the memory of the unit that composes: its share
    /// of what each layer touches.</summary>
    private static double GraphicsOverflowBytes(PlaybackPlan plan, Passage passage, Graphics? graphics)
    {
        var (needed, fitted) = (GraphicsMemoryBytes(plan, passage), graphics?.MemoryGigabytes * 1e9);
        return needed > fitted ? (needed - fitted.Value) / needed * WorkingBytes(plan) * passage.Layers.Count * 2 : 0;
    }

    private static double WorkingBytes(PlaybackPlan plan) =>
        plan.Settings.ProcessedRaster(plan.Timeline.Raster).Pixels * WorkingBytesPerPixel;

    private static int HeldFrames(Passage passage) =>
        KindsOf(passage).Sum(kind => kind.Cost.HeldFrames);

    /// <summary>Frames a decoder keeps for reference, whatever the codec.</summary>
    private const int ReferenceFrames = 4;

    /// <summary>Memory above what is free: its share of all touches goes to the swap drive.</summary>
    /// <param name="reserved">Bytes that the editing program holds besides frames.</param>
    private static double SwapBytes(Memory memory, double needed, double reserved, List<Stream> layers)
    {
        var free = Math.Max(0, (memory.Gigabytes - memory.InUseGigabytes) * 1e9 - reserved);
        var overflow = needed > free ? (needed - free) / needed : 0;
        return overflow * layers.Sum(stream => stream.Format.BytesPerDecodedFrame) * 2;
    }

    /// <summary>A layer's footage at its speed.</summary>
    private sealed record Stream(ClipFormat Format, Retime? Retime)
    {
        public double Speed => Retime?.Speed ?? 1;

        /// <summary>Source frames that run by for each timeline frame.</summary>
        public double RunningPerFrame(FrameRate timeline) => Speed * Format.Rate.FramesPerSecond / timeline.FramesPerSecond;

        public double DecodedPerFrame(FrameRate timeline) => ClipFacts.SourceFramesPerTimelineFrame(Format, timeline, Speed);
    }
}
