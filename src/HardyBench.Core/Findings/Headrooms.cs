using HardyBench.Core.Playback;

namespace HardyBench.Core.Findings;

/// <summary>What one part of the machine had to do over a whole passage, and what it could.</summary>
/// <param name="Part">By what it is read; <see cref="LoadKind.Core"/> is the processor as a whole.</param>
/// <param name="Index">Which of several, as its readings number it.</param>
/// <param name="Use">Share of its time, or of its room, that was taken; 0 to 1.</param>
/// <param name="Headroom">Capacity ÷ demand at the timeline's rate: below 1 it cannot reach the required rate. Null where it hardly did
/// anything.</param>
public sealed record PartHeadroom(LoadKind Part, int Index, double Use, double? Headroom);

/// <summary>How much more each part of a machine could be asked.</summary>
public static class Headrooms
{
    /// <summary>A part that is less busy than this says nothing of what it could do.</summary>
    private const double Idle = 0.001;

    /// <summary>Every part that can be read, the tightest first. By the utilisation law, U = X·D: at a throughput of X frames a second a
    /// part whose share busy is U could do X/U of them. (Denning and Buzen, "The Operational Analysis of Queueing Network Models",
    /// 1978.)</summary>
    /// <param name="loads">Means over the whole passage.</param>
    /// <param name="worked">Frames that were worked on ÷ slots: what of the demand was met.</param>
    /// <param name="decodeCost">What they cost to decode, as a share of what frames of whole GOPs do.</param>
    public static IReadOnlyList<PartHeadroom> Of(LoadMeans loads, Conditions conditions, double worked, double decodeCost = 1)
    {
        var parts = new List<PartHeadroom>();
        var (decode, effects) = (loads.Of(LoadKind.OwnDecode) ?? 0, loads.Of(LoadKind.OwnEffects) ?? 0);
        var processorCost = decode + effects > 0 ? (decode * decodeCost + effects) / (decode + effects) : 1;
        Add(LoadKind.Core, 0, loads.Cores(conditions.UsableCores) is { Count: > 0 } cores ? cores.Average() : null);
        if (loads.HighestOf(LoadKind.OwnThread) is { } thread)
        {
            Add(LoadKind.OwnThread, thread.Index, thread.Value);
        }

        foreach (
            var kind in (LoadKind[])
                [LoadKind.MediaEngineBusy, LoadKind.EncoderBusy, LoadKind.GraphicsBusy, LoadKind.DriveBusy, LoadKind.BusBusy])
        {
            foreach (var (index, use) in loads.AllOf(kind).Where(one => kind != LoadKind.DriveBusy || conditions.IsMediaDrive(one.Index)))
            {
                Add(kind, index, use);
            }
        }

        if (loads.Of(LoadKind.MemoryUsed) is { } used && loads.Of(LoadKind.MemoryFitted) is > 0 and var fitted)
        {
            // Room is taken whether frames are worked on or not.
            parts.Add(new PartHeadroom(LoadKind.MemoryUsed, 0, used / fitted, fitted / used));
        }

        return [.. parts.OrderBy(part => part.Headroom ?? double.MaxValue)];

        void Add(LoadKind part, int index, double? use)
        {
            if (use is { } busy)
            {
                var cost = part switch { LoadKind.Core => processorCost, LoadKind.MediaEngineBusy => decodeCost, _ => 1 };
                parts.Add(new PartHeadroom(part, index, busy, busy > Idle && worked > 0 ? worked * cost / busy : null));
            }
        }
    }

    /// <summary>Without headroom, room left aside: where frames of a GOP were left out, nobody knows how many others were decoded for those
    /// that were shown.</summary>
    public static IReadOnlyList<PartHeadroom> WithoutFigure(IReadOnlyList<PartHeadroom> parts) =>
        [.. parts.Select(part => part.Part == LoadKind.MemoryUsed ? part : part with { Headroom = null })];

    /// <summary>That of the tightest part, memory left aside. Below 1 also where a short passage holds by what was prepared before it. Null
    /// where no load could be read or all parts are idle.</summary>
    public static double? Least(IReadOnlyList<PartHeadroom> parts) =>
        parts.Where(part => part.Part != LoadKind.MemoryUsed).Min(part => part.Headroom);
}
