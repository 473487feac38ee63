using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Programs;
using HardyBench.Core.Timelines.Effects;
using static System.FormattableString;

namespace HardyBench.Core.Wording;

/// <summary>Editing programs in words.</summary>
public static class ProgramWords
{
    /// <summary>How one uses a machine, a phrase each.</summary>
    public static IReadOnlyList<string> Of(EditingProgram program)
    {
        string?[] all =
        [
            program.OnMediaEngine switch
            {
                null => "sends a media engine everything it supports",
                [] => "decodes everything on the processor",
                var rows => $"sends a media engine {string.Join(", ", rows.Select(row => row.Notation))}",
            },
            program.DecoderCores is { } cores ? $"{(cores == 1 ? "one core" : $"{cores} cores")} for each decoder" : null,
            program.DecodesSmaller ? "wavelets and camera raw decoded at the preview scale" : null,
            program.ComposesOn == ComposingPlace.Processor ? "effects on the processor"
                : $"effects on {(program.GraphicsUnits == 1 ? "one graphics unit" : "every graphics unit")}",
            program.EffectsAt == EffectRaster.Clip ? "at the clip's raster" : "at the timeline's raster",
            program.InColour ? "every layer converted to red, green and blue" : null,
            program.OnOneCore is { Count: > 0 } effects ? $"{string.Join(", ", effects.Select(Name))} on one core" : null,
            program.WhenLate == PlayingPolicy.KeepFrames ? "shows every frame and lets the clock slip" : "drops frames to stay with the clock",
            $"look-ahead {program.LookAhead}",
            program.RendersAt == PreviewScale.Full ? null : $"pre-renders at {program.RendersAt.ToString().ToLowerInvariant()} scale",
            program.ReservesGigabytes > 0 ? Invariant($"holds {program.ReservesGigabytes:0.#} GB") : null,
        ];
        return [.. all.OfType<string>()];
    }

    private static string Name(string effect) => EffectCatalogue.Find(effect)?.Label ?? effect;
}
