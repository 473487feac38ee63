using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings.Limiters;

/// <summary>A media engine encodes all it can.</summary>
public sealed class EncodingEngineRule() : BusyDeviceRule(
    LoadKind.EncoderBusy, Limiter.EncodingEngine, "the media engine's encoder", new LimiterAdvice(
        "A media engine that encodes faster, or a smaller raster.",
        "More cores will not help: they wait for the encoder.",
        "the media engine's encoder still is at its limit"));
