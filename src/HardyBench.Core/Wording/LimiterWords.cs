using HardyBench.Core.Findings;
using HardyBench.Core.Playback;
using static System.FormattableString;
using static HardyBench.Core.Wording.Figures;

namespace HardyBench.Core.Wording;

/// <summary>A limiter in words: how it is known, what would help and what would not.</summary>
public static class LimiterWords
{
    /// <summary>Figures, seconds, and before how much of what was judged; one sentence.</summary>
    public static string Evidence(LimiterFinding finding)
    {
        var evidence = finding.Evidence;
        var said = FiguresOf(finding) is { } figures
            ? $"{char.ToUpperInvariant(figures[0])}{figures[1..]}"
                + Invariant($", from {evidence.From.TotalSeconds:0.0} to {evidence.To.TotalSeconds:0.0} s")
            : evidence is NotPlayed { Why: var why } ? why : "No loads could be read here.";
        return finding.Before is { } before ? $"{said.TrimEnd('.')}, {Before(before)}." : $"{said.TrimEnd('.')}.";
    }

    /// <summary>How the limiter is known, and why nothing is done at the end where the rest was given up; null where there is no
    /// limiter.</summary>
    public static string? Evidence(PassageFinding finding) => finding.Limiter is not { } limiter ? null
        : finding.GivenUpFrom is { } from
            ? Evidence(limiter) + Invariant($" From {from.TotalSeconds:0.0} s on no work was done: no later frame of the passage could be ready in time, so the rest was abandoned.")
        : Evidence(limiter);

    /// <summary>What is at its ceiling besides, and what that means; null where there is nothing.</summary>
    public static string? Second(LimiterFinding finding) => finding.Second is { } second
        ? $"Also at its limit, and next to limit: {Evidence(second)}"
        : null;

    /// <summary>A part of the machine, as a row of headrooms names it.</summary>
    /// <param name="conditions">What its readings were of.</param>
    /// <param name="several">Whether there are more of its kind.</param>
    public static string NameOf(PartHeadroom part, Conditions conditions, bool several) => part.Part switch
    {
        LoadKind.Core => "processor",
        LoadKind.OwnThread => "busiest thread of the player",
        LoadKind.MemoryUsed => "memory",
        LoadKind.DriveBusy when several => $"drive {conditions.NameOf(part.Part, part.Index)}",
        var kind => several ? Invariant($"{NameOf(kind)} {part.Index + 1}") : NameOf(kind),
    };

    /// <summary>What would change the result, a sentence or two.</summary>
    public static string Helps(LimiterFinding finding) => finding.Limiter switch
    {
        Limiter.Memory => "More memory, or fewer layers at once.",
        Limiter.MediaEngine => "An all-intra intermediate decoded on the processor, a smaller source raster, or a faster media engine.",
        Limiter.GraphicsEffects => "A smaller preview scale, a pre-render of this passage, or a stronger graphics unit.",
        Limiter.Heat => "Better cooling, or less work at once.",
        Limiter.Power => "Mains instead of battery, a higher power limit, or less work at once.",
        Limiter.GraphicsMemory => "A graphics unit with more memory, a smaller preview scale, or fewer layers at once.",
        Limiter.OtherPrograms => "Close other programs and play again. A virtual machine needs cores that its host does not share.",
        Limiter.ProcessorDecode => "An all-intra intermediate or proxies, a media engine that takes this format, or more cores.",
        Limiter.ProcessorEffects => "A smaller preview scale, a pre-render of this passage, or effects on a graphics unit.",
        Limiter.SingleThread => "A processor with faster cores.",
        Limiter.Drive => "Media on a faster drive, or footage of a lower data rate.",
        Limiter.Bus => "Decoding on the graphics unit's own media engine, or a wider bus.",
        Limiter.ProcessorEncode => "A media engine that encodes this format, a lighter format, or more cores.",
        Limiter.EncodingEngine => "A media engine that encodes faster, or a smaller raster.",
        Limiter.Clip => "Create or relink the clip, then play again.",
        _ => "Play it three times to see whether it stays; then look at the software.",
    };

    /// <summary>What would not, though it is often tried; null where nothing common comes to mind.</summary>
    public static string? WhatDoesNotHelp(LimiterFinding finding) => finding.Limiter switch
    {
        Limiter.Memory => "A faster processor will not help while it waits for memory.",
        Limiter.MediaEngine => "A smaller timeline raster will not help: every source frame is still decoded whole.",
        Limiter.GraphicsEffects => "Proxies will not help: the effects work at the timeline's raster, not the clip's.",
        Limiter.Heat => "A short test does not show this: it appears after some minutes.",
        Limiter.Power => "Better cooling will not help: the clock is low because of the power limit, not the heat.",
        Limiter.GraphicsMemory => "Graphics with more computing power will not help while they wait for their memory.",
        Limiter.ProcessorDecode => "A smaller timeline raster or a faster drive will not help: every source frame is still decoded whole.",
        Limiter.ProcessorEffects => "Proxies will hardly help: the effects work at the timeline's raster, not the clip's.",
        Limiter.ProcessorEncode => "Pre-renders and a stronger graphics unit will not help: the encoder is the slow part.",
        Limiter.EncodingEngine => "More cores will not help: they wait for the encoder.",
        Limiter.SingleThread => "More cores will not help: this work cannot be shared among them.",
        Limiter.Drive => "A faster processor or graphics unit will not help while they wait for the drive.",
        _ => null,
    };

    private static string? FiguresOf(LimiterFinding finding) => finding.Evidence switch
    {
        FullMemory memory => Invariant($"memory {Percent(memory.Used)} full and {memory.SwapTraffic / 1e6:0} MB/s going to and from swap"),
        ShortOfMemory memory => $"tasks waited for memory {Percent(memory.Standing)} of the time",
        LateFootage footage => $"the player waited for footage to be read {Percent(footage.Waiting)} of the time",
        BusyDevice device => $"{NameOf(device.Device)} {Percent(device.Busy)} busy",
        FallenClock clock => Invariant($"clock down to {clock.Clock / 1e9:0.0} of {clock.Rated / 1e9:0.0} GHz at {clock.Celsius:0} °C"),
        CappedPower power => Invariant($"clock down to {power.Clock / 1e9:0.0} of {power.Rated / 1e9:0.0} GHz ")
            + (power.Limit is { } watts ? Invariant($"at the power limit of {watts:0} W") : "for lack of power")
            + (power.Celsius is { } celsius ? Invariant($", at {celsius:0} °C") : string.Empty),
        FullGraphicsMemory memory =>
            Invariant($"graphics memory full ({memory.Used / 1e9:0.0} GB) and the bus {Percent(memory.Bus)} busy with what does not fit"),
        BusyProcessor processor =>
            $"processor {Percent(processor.Busy)} busy and {Percent(processor.Work)} of the player's work was "
                + (finding.Limiter switch
                {
                    Limiter.ProcessorDecode => "decoding",
                    Limiter.ProcessorEncode => "encoding",
                    _ => "effects",
                }),
        TakenProcessor taken => Invariant(
            $"processor {Percent(taken.Busy)} busy, but only {taken.Own:0.0} of {taken.Cores} cores with this player"
        ),
        BusyThread thread =>
            $"one thread of the player {Percent(thread.Busy)} busy while the processor as a whole is at {Percent(thread.Pool)}",
        BusyCore core => $"one core {Percent(core.Busy)} busy while the others stay at {Percent(core.Next)} or below",
        NothingAtItsLimit { OtherDrive: { } drive } nothing =>
            $"nothing that it uses is at its limit (processor {Percent(nothing.Pool)}); "
            + $"drive {drive}, without any of this footage, is {Percent(nothing.OtherBusy ?? 0)} busy",
        NothingAtItsLimit nothing => $"nothing measured is at its limit (processor {Percent(nothing.Pool)})",
        _ => null,
    };

    private static string NameOf(LoadKind device) => device switch
    {
        LoadKind.MediaEngineBusy => "media engine",
        LoadKind.EncoderBusy => "the media engine's encoder",
        LoadKind.GraphicsBusy => "graphics compute",
        LoadKind.DriveBusy => "media drive",
        _ => "bus to the graphics unit",
    };

    private static string Before(ShareOfWindows before) => before.Share >= 1
        ? $"before every {(before.AreMisses ? "miss" : "frame that was begun")}"
        : $"before {Percent(before.Share)} of the {(before.AreMisses ? "misses" : "frames that were begun")}";
}
