using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings.Limiters;

/// <summary>A media engine decodes all it can.</summary>
public sealed class MediaEngineRule() : BusyDeviceRule(LoadKind.MediaEngineBusy, Limiter.MediaEngine, "media engine", new LimiterAdvice(
    "An all-intra intermediate decoded on the processor, a smaller source raster, or a faster media engine.",
    "A smaller timeline raster will not help: every source frame is still decoded whole.",
    "the media engine still is at its limit"));
