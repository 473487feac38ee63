using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Exports;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.StandIns;

/// <summary>Proxies and pre-renders as a stand-in has them: calculated, not made.</summary>
public static class StandInAids
{
    private const string RenderId = "~render";

    /// <summary>Whether a passage is played from its pre-render.</summary>
    public static bool IsRendered(Passage passage) => passage.Layers is [{ ClipId: RenderId }];

    /// <summary>Bits a pixel of the all-intra files that the player makes. Measured on the starter pack, rounded.</summary>
    private const double BitsPerPixel = 2.6;

    public static PlaybackPlan Apply(PlaybackPlan plan)
    {
        var divisor = plan.Settings.Proxies switch { Proxies.Half => 2, Proxies.Quarter => 4, _ => 1 };
        var with = divisor == 1 ? plan : plan with
        {
            Clips = plan.Clips.ToDictionary(clip => clip.Key, clip => clip.Value with
            {
                Format = Intra(clip.Value.Format.Raster.DividedBy(divisor), clip.Value.Format.Rate),
            }),
        };
        if (!plan.Settings.PreRenders)
        {
            return with;
        }

        var render = new Clip(RenderId, "pre-render", Intra(
                plan.Timeline.Raster.DividedBy((int)(plan.Settings.Program?.RendersAt ?? PreviewScale.Full)), plan.Timeline.Rate), 1, null);
        return with with
        {
            Clips = with.Clips.Append(KeyValuePair.Create(RenderId, render)).ToDictionary(),
            Rendered = plan.Timeline.Passages.Index().ToDictionary(
                passage => passage.Index,
                passage => passage.Item with { Layers = [new Layer(RenderId, [])], Over = [], Transition = null }),
        };
    }

    /// <summary>Long-GOP footage as all-intra copies of the same raster; the very same plan where there is none.</summary>
    public static PlaybackPlan AsIntermediates(PlaybackPlan plan) => plan.PlayedClipIds.All(id => plan.Clips[id].Format.IsAllIntra)
        ? plan
        : plan with
        {
            Clips = plan.Clips.ToDictionary(
                clip => clip.Key,
                clip => clip.Value.Format.IsAllIntra
                    ? clip.Value
                    : clip.Value with { Format = Intra(clip.Value.Format.Raster, clip.Value.Format.Rate) }),
        };

    /// <summary>Disk that copies and pre-renders take: of a clip its copy, whole and once however often it is used, of a passage its
    /// render. Footage that is played as it was takes none.</summary>
    /// <param name="plan">Without them.</param>
    /// <param name="aided">With them.</param>
    public static double Bytes(PlaybackPlan plan, PlaybackPlan aided) =>
        Copies(plan, aided).Sum(clip => BytesOf(clip, SecondsOf(clip)))
            + Rendered(aided).Sum(passage => aided.ClipsOf(aided.Played(passage.Index))
                .Sum(clip => BytesOf(clip, passage.Item.FrameCount / aided.Timeline.Rate.FramesPerSecond)));

    private static double BytesOf(Clip clip, double seconds) => clip.Format.DataRate.BitsPerSecond / 8.0 * seconds;

    private static double SecondsOf(Clip clip) => clip.FrameCount / clip.Format.Rate.FramesPerSecond;

    /// <summary>Clips that are copied, each once however often it is used, and whole.</summary>
    private static List<Clip> Copies(PlaybackPlan plan, PlaybackPlan aided) =>
    [
        .. aided.Timeline.Passages.Index().Select(passage => aided.Played(passage.Index)).Where(played => !IsRendered(played))
            .SelectMany(aided.ClipsOf).DistinctBy(clip => clip.Id)
            .Where(clip => plan.Clips.GetValueOrDefault(clip.Id)?.Format != clip.Format),
    ];

    private static IEnumerable<(int Index, Passage Item)> Rendered(PlaybackPlan aided) =>
        aided.Timeline.Passages.Index().Where(passage => IsRendered(aided.Played(passage.Index)));

    /// <summary>What the work plays of footage, each clip once and whole.</summary>
    public static TimeSpan Footage(PlaybackPlan plan) =>
        TimeSpan.FromSeconds(plan.PlayedClipIds.Sum(id => SecondsOf(plan.Clips[id])));

    /// <summary>Bytes of the clips that a plan plays, each once.</summary>
    public static double FootageBytes(PlaybackPlan plan) =>
        plan.PlayedClipIds.Select(id => plan.Clips[id]).Sum(clip => BytesOf(clip, SecondsOf(clip)));

    /// <summary>How long the machine takes to make them, by the bottleneck law (Denning and Buzen 1978): every copy is an export of its
    /// whole clip at the copy's raster, every pre-render one of its passage.</summary>
    /// <param name="plan">Without them.</param>
    /// <param name="aided">With them.</param>
    public static TimeSpan Preparation(PlaybackPlan plan, PlaybackPlan aided) => TimeSpan.FromSeconds(
        Copies(plan, aided).Sum(clip => ExportSeconds(
            plan, clip.Format.Raster, clip.Format.Rate, new Passage(clip.Title, 1, [new Layer(clip.Id, [])], []), SecondsOf(clip)))
        + Rendered(aided).Sum(passage => ExportSeconds(
            plan, plan.Timeline.Raster, plan.Timeline.Rate, plan.Timeline.Passages[passage.Index].WithoutOff(),
            aided.Timeline.Rate.StartOf(passage.Item.FrameCount).TotalSeconds)));

    /// <summary>To write a stretch of so many seconds.</summary>
    private static double ExportSeconds(PlaybackPlan plan, Raster raster, FrameRate rate, Passage passage, double seconds)
    {
        var export = plan with
        {
            Timeline = plan.Timeline with { Raster = raster, Rate = rate, Passages = [passage] },
            Rendered = null,
            Settings = new PlaybackSettings(Policy: PlayingPolicy.Unpaced)
            {
                Program = plan.Settings.Program, Others = plan.Settings.Others,
            },
            Subject = new Export(ExportFormat.Rdd36),
        };
        return seconds * rate.FramesPerSecond
            * CostModel.DemandOf(export, passage).Bottleneck(CostModel.UnitsSharing(export)).Seconds;
    }

    private static ClipFormat Intra(Raster raster, FrameRate rate) => new(
        Codec.Rdd36,
        ChromaSubsampling.Half,
        10,
        raster,
        rate,
        1,
        new DataRate((long)(raster.Pixels * BitsPerPixel * rate.FramesPerSecond))
    );
}
