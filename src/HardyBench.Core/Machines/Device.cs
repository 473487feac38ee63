namespace HardyBench.Core.Machines;

/// <summary>A kind of device that FFmpeg knows.</summary>
/// <param name="Name">FFmpeg's name of it: "vaapi", "opencl".</param>
/// <param name="Refusal">Why it cannot be opened here, or null when it can.</param>
/// <param name="IsOwn">Whether the machine works on it unless a run asks otherwise: it opens, and there is hardware behind it.</param>
public sealed record Device(string Name, string? Refusal, bool IsOwn = false);
