using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.Calibration;

/// <summary>Plans that are played without a clock so that what each kind of work takes shows, a passage for each.</summary>
/// <param name="clips">The clips that it may play.</param>
/// <param name="plain">Clips that are cheap to decode, under which treatment is measured: one of 8 bits a sample and one of more, of one
/// raster.</param>
/// <param name="scaled">Clips of another raster, which are brought to that one: likewise of 8 bits a sample and of more.</param>
/// <param name="textOf">What effects with a text are given; null for none.</param>
/// <param name="atLeast">How long a passage is to play at least, by the costs of the reference core.</param>
public sealed class CalibrationPlan(
    IReadOnlyDictionary<string, Clip> clips, IReadOnlyList<string> plain, IReadOnlyList<string> scaled,
    Func<EffectKind, string?> textOf, TimeSpan atLeast)
{
    /// <summary>Frames at either cut of a passage that do not count.</summary>
    private const int UncountedFrames = 2 * (Ahead + PlaybackSettings.DecodeAhead) + 1;

    /// <summary>As many count at least: whole GOPs of the clips, and of all-intra footage half of a clip, since what takes long there takes
    /// each frame as long.</summary>
    private const int Gop = 20, HalfAClip = 10, MaxGops = 100;

    /// <summary>Treated frames that may wait: few, because as many at either cut do not count.</summary>
    private const int Ahead = 1;

    /// <summary>Two effects in one chain share the way to red, green and blue and back, which each has for itself when alone.</summary>
    public const string Chain = "primary-grade+curves";

    private static readonly string[] Chained = ["primary-grade", "curves"];

    /// <summary>The plans in order, each with what its passages measure.</summary>
    /// <param name="cores">Cores that may be used; with one there is nothing to share out.</param>
    public IReadOnlyList<(PlaybackPlan Plan, IReadOnlyList<Measure> Measures)> For(Machine machine, int cores)
    {
        return
        [
            .. Decoding(MeasureKind.OneThread),
            .. cores > 1 ? Decoding(MeasureKind.AllThreads) : [],
            Plan(machine, clips[plain[0]].Format.Raster, [.. Treatments()], cores),
        ];

        IEnumerable<(PlaybackPlan Plan, IReadOnlyList<Measure> Measures)> Decoding(MeasureKind kind) =>
            from raster in (kind == MeasureKind.OneThread ? clips.Values : MinAndMaxBits()).GroupBy(clip => clip.Format.Raster)
            select Plan(
                machine, raster.Key, [.. raster.Select(clip => (Bare(clip), Measured(kind, clip)))],
                kind == MeasureKind.OneThread ? 1 : cores);
    }

    /// <summary>Two clips of each kind of long-GOP footage, of the raster that most of it have: what more cores gain there depends on how
    /// much of the work is for bits. Of all-intra footage, where each core has frames of its own, one.</summary>
    private IEnumerable<Clip> MinAndMaxBits() =>
        from alike in clips.Values.GroupBy(clip => (clip.Format.Codec, clip.Format.BitDepth > 8))
        let raster = alike.GroupBy(clip => clip.Format.Raster).MaxBy(of => of.Count())!
        from clip in raster.Where(clip => !clip.Format.IsAllIntra).OrderBy(clip => clip.Format.BitsPerFrame).Take(1)
            .Append(raster.MaxBy(clip => clip.Format.BitsPerFrame)!).Distinct()
        select clip;

    /// <summary>What came out, passage by passage.</summary>
    public static IReadOnlyList<Measure> Read(Run run, IReadOnlyList<Measure> measures)
    {
        var loads = run.Loads.Where(load => load.Kind is LoadKind.OwnDecode or LoadKind.OwnEffects)
            .OrderBy(load => load.At).ToLookup(load => load.Kind);
        return [.. measures.Index().Select(one => Read(run, one.Index, one.Item))];

        Measure Read(Run of, int index, Measure measure)
        {
            var shown = of.FramesOf(index).Select(frame => frame.Shown).OfType<TimeSpan>().ToList();
            if (shown.Count < UncountedFrames + Counting(measure.Format))
            {
                return measure;
            }

            var (first, last) = SustainedRate.Between(shown, of.Header.Settings);
            var (from, to, frames) = (shown[first], shown[last], last - first);
            var rate = SustainedRate.Of(shown, of.Header.Settings);
            var decoding = ProcessorTime(loads[LoadKind.OwnDecode], from, to) / frames;
            return measure with
            {
                FramesPerSecond = rate,
                // One thread takes no more than all of the time; what is beyond that is what was decoded ahead.
                DecodeSeconds = measure.Kind == MeasureKind.OneThread && rate > 0 ? Math.Min(decoding, 1 / rate) : decoding,
                EffectsSeconds = ProcessorTime(loads[LoadKind.OwnEffects], from, to) / frames,
            };
        }
    }

    /// <summary>Cores that other programs may take during a passage before its figures count for nothing. Common practice, no
    /// source.</summary>
    public const double MaxOtherLoad = 0.3;

    /// <summary>Passages, from 0, beside which other programs were busy.</summary>
    public static IReadOnlyList<int> Disturbed(Run run) =>
    [
        .. Enumerable.Range(0, run.Header.Timeline.Passages.Count)
            .Where(index => run.FramesOf(index).Select(frame => frame.Shown).OfType<TimeSpan>().ToList() is [var from, .., var to]
                && OtherLoad(run, from, to) > MaxOtherLoad),
    ];

    /// <summary>Share of the passages that may be disturbed. Common practice, no source.</summary>
    private const double MaxDisturbed = 0.25;

    /// <summary>No twin is made where other programs disturbed too much, or all clips of a codec: its cost rests on the few passages that
    /// are decoded on one thread, and other codecs say nothing about it.</summary>
    /// <param name="disturbed">How many of the passages were disturbed every time.</param>
    /// <exception cref="CalibrationException">Too much was disturbed.</exception>
    public static void CheckDisturbed(IReadOnlyList<Measure> measures, int disturbed)
    {
        string[] unknown = disturbed == 0
            ? []
            : [
                .. measures.Where(measure => measure.Kind == MeasureKind.OneThread).GroupBy(measure => measure.DecodesAs)
                    .Where(of => !of.Any(measure => measure.IsUsable)).Select(of => of.Key.Codec.StandardName).Distinct(),
            ];
        if (unknown.Length > 0 || disturbed > MaxDisturbed * measures.Count)
        {
            throw new CalibrationException(
                $"Other programs were busy during {disturbed} of {measures.Count} measurements, and again when they were repeated"
                + (unknown.Length > 0 ? $"; the cost of decoding {string.Join(", ", unknown)} is therefore not known" : "")
                + ". Nothing was changed. Close other programs and calibrate again.");
        }
    }

    /// <summary>Cores busy with other programs on average within a stretch; 0 where it could not be read.</summary>
    private static double OtherLoad(Run run, TimeSpan from, TimeSpan to)
    {
        var loads = run.Loads.Where(load => load.At >= from && load.At <= to).ToLookup(load => load.Kind);
        if (!loads.Contains(LoadKind.Core) || !loads.Contains(LoadKind.OwnProcess))
        {
            return 0;
        }

        var cores = loads[LoadKind.Core].GroupBy(load => load.Index).Sum(core => core.Average(load => load.Value));
        return cores - loads[LoadKind.OwnProcess].Average(load => load.Value);
    }

    /// <summary>Processor seconds within a stretch: a reading is of the time since the one before it.</summary>
    private static double ProcessorTime(IEnumerable<LoadReading> loads, TimeSpan from, TimeSpan to)
    {
        var (sum, before) = (0.0, TimeSpan.Zero);
        foreach (var load in loads)
        {
            var (begin, end) = (before > from ? before : from, load.At < to ? load.At : to);
            sum += end > begin ? load.Value * (end - begin).TotalSeconds : 0;
            before = load.At;
        }

        return sum;
    }

    private IEnumerable<(Passage Passage, Measure Measure)> Treatments()
    {
        var kinds = EffectCatalogue.All
            .Where(kind => kind.RunsOn != EffectPlace.StandInsOnly && kind.Id != EffectCatalogue.Placement).ToList();
        foreach (var clip in plain.Select(id => clips[id]))
        {
            // What all of them are measured against is played beside them, and so in the same minute.
            yield return (Bare(clip), Treated(clip, null));
            foreach (var kind in kinds)
            {
                yield return (Bare(clip) with { Layers = [new Layer(clip.Id, [Of(kind)])] }, Treated(clip, kind.Id));
            }

            yield return (
                Bare(clip) with { Layers = [new Layer(clip.Id, [.. Chained.Select(id => Of(kinds.Single(kind => kind.Id == id)))])] },
                Treated(clip, Chain));
            yield return (
                Bare(clip) with { Layers = [new Layer(clip.Id, []), new Layer(clip.Id, [])] },
                Treated(clip, TreatmentCost.Blend));
        }

        foreach (var large in scaled.Select(id => clips[id]))
        {
            yield return (Bare(large), Treated(large, TreatmentCost.Scaling));
        }
    }

    private Effect Of(EffectKind kind) => Effect.Of(kind.Id) with { Text = textOf(kind) };

    private static Passage Bare(Clip clip) => new(clip.Title, 0, [new Layer(clip.Id, [])], []);

    private static Measure Measured(MeasureKind kind, Clip clip) => new(kind, clip.Id, clip.Format, null, 0, clip.Format.BitDepth > 8);

    private static Measure Treated(Clip clip, string? work) => new(
        MeasureKind.Treatment, clip.Id, clip.Format, work, clip.Format.Raster.Pixels, clip.Format.BitDepth > 8);

    private (PlaybackPlan Plan, IReadOnlyList<Measure> Measures) Plan(
        Machine machine, Raster raster, IReadOnlyList<(Passage Passage, Measure Measure)> all, int threads)
    {
        var timeline = new Timeline(
            "calibration", "Calibration", raster, clips.Values.First().Format.Rate,
            [.. all.Select(one => one.Passage with { FrameCount = FramesFor(one.Passage, raster, threads) })]);
        // Costs are those of the processor, whatever devices the machine has.
        var settings = new PlaybackSettings(
            Policy: PlayingPolicy.Unpaced, LookAhead: Ahead, Threads: threads, Cache: FileCache.Warm,
            DecodeOn: WorkPlace.Processor, EffectsOn: WorkPlace.Processor);
        return (new PlaybackPlan(timeline, clips, machine, settings), [.. all.Select(one => one.Measure)]);
    }

    /// <summary>As many as last long enough on reference cores, in whole GOPs.</summary>
    private int FramesFor(Passage passage, Raster raster, int threads)
    {
        var rate = clips[passage.Layers[0].ClipId].Format.Rate;
        var seconds = PassageWeight.Of(passage, new Timeline("t", "T", raster, rate, [passage]), clips).Cores / rate.FramesPerSecond / threads;
        var counting = Counting(clips[passage.Layers[0].ClipId].Format);
        return UncountedFrames + counting * Math.Clamp(
            (int)Math.Ceiling(atLeast / TimeSpan.FromSeconds(Math.Max(1e-4, seconds) * counting)), 1, MaxGops * Gop / counting);
    }

    private static int Counting(ClipFormat format) => format.IsAllIntra ? HalfAClip : Gop;
}
