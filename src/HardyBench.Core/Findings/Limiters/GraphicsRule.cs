using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings.Limiters;

/// <summary>Effects take all of the graphics unit.</summary>
public sealed class GraphicsRule() : BusyDeviceRule(LoadKind.GraphicsBusy, Limiter.GraphicsEffects, "graphics compute", new LimiterAdvice(
    "A smaller preview scale, a pre-render of this passage, or a stronger graphics unit.",
    "Proxies will not help: the effects work at the timeline's raster, not the clip's.",
    "effects still take too much of the graphics unit"));
