using HardyBench.Core.Playback;

namespace HardyBench.Server.Runs;

/// <summary>An observation to pin: at a moment, or at a frame.</summary>
/// <param name="AtMs">Milliseconds from the key; null to go by the frame.</param>
/// <param name="Frame">Timeline frame; null to go by the moment. Without either it is the newest moment kept.</param>
public sealed record MarkRequest(MarkKind Kind, double? AtMs = null, int? Frame = null, string Text = "");

/// <summary>Runs to put aside, or to bring back.</summary>
public sealed record RunIds(IReadOnlyList<long> Ids, bool Aside);
