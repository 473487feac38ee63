using HardyBench.Core.Machines;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>One thing that a reader has to know before trusting a run. Shares are 0 to 1, cores are seconds of processor time a
/// second.</summary>
public abstract record RunNote;

/// <summary>Other programs were busy before the start.</summary>
public sealed record OtherProgramsBusy(double Cores) : RunNote;

public sealed record PresenterHadNoPriority : RunNote;

public sealed record LittleMemoryFree(double Bytes) : RunNote;

/// <summary>On the drive that keeps the run.</summary>
public sealed record LittleRoomFree(double Bytes) : RunNote;

public sealed record RanFromBattery : RunNote;

public sealed record BatteryWasLow(double Charge) : RunNote;

public sealed record GovernorSavesPower : RunNote;

/// <param name="Place">Where it was decoded instead of on the device asked for.</param>
public sealed record DecodedElsewhere(string Clip, string Place, string Why) : RunNote;

/// <summary>No media engine takes a clip, so it was left to the processor.</summary>
public sealed record NotOnEngine(string Clip, EngineRefusal Lacks) : RunNote;

/// <param name="Cached">Share of the clip's file that lay in the file cache.</param>
public sealed record WaitedForDrive(string Clip, double Cached) : RunNote;

/// <param name="Effect">Its id.</param>
public sealed record EffectRanElsewhere(string Effect, string Place, string Why) : RunNote;

/// <param name="Ending">Stopped or interrupted.</param>
public sealed record EndedEarly(RunEnding Ending) : RunNote;

/// <summary>A stand-in played clips that are not created yet.</summary>
/// <param name="Clips">Their ids.</param>
public sealed record RestsOnEstimates(IReadOnlyList<string> Clips) : RunNote;

/// <param name="Passages">From 0.</param>
public sealed record PlayedFromRenders(IReadOnlyList<int> Passages) : RunNote;

/// <param name="Passage">From 0.</param>
public sealed record PassageError(int Passage, string What) : RunNote;

/// <summary>Drops because the presenter was late.</summary>
public sealed record OwnDrops(int Count) : RunNote;

/// <param name="By">At the 99th percentile.</param>
public sealed record PresenterWasLate(TimeSpan By) : RunNote;

/// <param name="Share">Of its rating.</param>
public sealed record ClockFell(double Share) : RunNote;

public sealed record ToolLoad(double Cores) : RunNote;

public sealed record PreviewLoad(double Cores) : RunNote;

/// <summary>The machine was suspended.</summary>
public sealed record Suspended(TimeSpan For, TimeSpan At) : RunNote;

/// <summary>The time of day was set.</summary>
/// <param name="By">Below zero for back.</param>
public sealed record TimeWasSet(TimeSpan By, TimeSpan At) : RunNote;

/// <summary>Nothing of ours ran for so long.</summary>
public sealed record PlayerStalled(TimeSpan For) : RunNote;
