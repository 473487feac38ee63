using HardyBench.Core.Footage;
using HardyBench.Core.Machines;

namespace HardyBench.Core.Advice.Answers;

/// <summary>A part of a machine that could be another.</summary>
public enum ChangedPart
{
    /// <summary>Half as fast again.</summary>
    Processor,

    /// <summary>Twice as fast.</summary>
    Graphics,

    /// <summary>One more, that takes every long-GOP format of the work.</summary>
    MediaEngine,

    /// <summary>Twice as much.</summary>
    Memory,

    /// <summary>Every drive twice as fast.</summary>
    Drive,
}

/// <summary>What a single better part would bring to a machine.</summary>
/// <param name="Before">The passage with the least headroom.</param>
/// <param name="After">The one that has least with the better part.</param>
public sealed record PartChange(ChangedPart Part, Forecast Before, Forecast After)
{
    public bool GainsNothing => After.GainsNothingOver(Before);

    /// <summary>Every part alone, the one that brings most first; by the bottleneck law.</summary>
    public static IReadOnlyList<PartChange> Of(Machine machine, Forecaster forecaster)
    {
        var formats = FormatsOf(forecaster);
        return forecaster.Weakest(machine) is not { } before ? [] :
        [
            .. Enum.GetValues<ChangedPart>()
                .Select(part => new PartChange(part, before, forecaster.Weakest(With(machine, part, formats))!))
                .OrderByDescending(change => change.After.Headroom).ThenBy(change => change.Part),
        ];
    }

    private static List<ClipFormat> FormatsOf(Forecaster forecaster) => [.. forecaster.Plans
        .SelectMany(plan => plan.PlayedClipIds.Select(id => plan.Clips[id].Format)).Where(format => !format.IsAllIntra).Distinct()];

    /// <summary>The machine with one part better.</summary>
    /// <param name="formats">Long-GOP formats of the work.</param>
    public static Machine With(Machine machine, ChangedPart part, IReadOnlyList<ClipFormat> formats)
    {
        const double Faster = 1.5, UsualMegapixels = 1000;
        var processor = machine.Processor;
        return part switch
        {
            ChangedPart.Processor => machine with
            {
                Processor = processor with
                {
                    RelativeCoreSpeed = Faster * processor.FastSpeed, RelativeSlowSpeed = Faster * processor.RelativeSlowSpeed,
                },
            },
            ChangedPart.Graphics => machine with
            {
                Graphics =
                [
                    .. machine.Graphics.Select(unit => unit with
                    {
                        PeakGigaflops = 2 * unit.PeakGigaflops, BandwidthGigabytesPerSecond = 2 * unit.BandwidthGigabytesPerSecond,
                    }),
                ],
            },
            ChangedPart.MediaEngine when formats.Count > 0 => machine with
            {
                MediaEngines =
                [
                    .. machine.MediaEngines,
                    new MediaEngine(
                        "another", machine.MediaEngines.Select(engine => engine.MegapixelsPerSecond).Append(UsualMegapixels).Max(),
                        [.. formats.Select(format => new FormatCapability(format.Codec, format.Chroma, format.BitDepth, format.Raster))]),
                ],
            },
            ChangedPart.Memory => machine with { Memory = machine.Memory with { Gigabytes = 2 * machine.Memory.Gigabytes } },
            ChangedPart.Drive => machine with
            {
                Drives =
                [
                    .. machine.Drives.Select(drive => drive with
                    {
                        ReadMegabytesPerSecond = 2 * drive.ReadMegabytesPerSecond, LatencyMilliseconds = drive.LatencyMilliseconds / 2,
                    }),
                ],
            },
            _ => machine,
        };
    }
}
