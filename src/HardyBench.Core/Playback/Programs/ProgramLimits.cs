using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.Playback.Programs;

/// <summary>An editing program that cannot be worked with; the message says what is wrong with it.</summary>
public sealed class ProgramRefusedException(string message) : Exception(message);

/// <summary>What keeps a description from being an editing program.</summary>
public static class ProgramLimits
{
    private const int LongestId = 40, LongestText = 200, MaxRows = 64;
    private const double MostGigabytes = 1024;

    /// <exception cref="ProgramRefusedException">Something is wrong with it; everything is named.</exception>
    public static EditingProgram Checked(EditingProgram program)
    {
        var problems = Problems(program).ToList();
        return problems.Count == 0 ? program : throw new ProgramRefusedException(string.Join(' ', problems));
    }

    /// <summary>A sentence each; nothing for one that can be simulated.</summary>
    public static IEnumerable<string> Problems(EditingProgram program) =>
        [.. Named(program), .. OfLists(program), .. OfFigures(program)];

    private static IEnumerable<string> Named(EditingProgram program)
    {
        if (string.IsNullOrWhiteSpace(program.Name) || program.Name.Length > MachineLimits.LongestName || program.Name.Any(char.IsControl))
        {
            yield return $"An editing program has a name of 1 to {MachineLimits.LongestName} letters.";
        }

        if (program.Id is null or { Length: > LongestId } || program.Id.Any(letter => !char.IsAsciiLetterOrDigit(letter) && letter != '-'))
        {
            yield return $"The id of an editing program has up to {LongestId} letters, digits and hyphens.";
        }

        if (program.Summary is null || program.Summary.Length > LongestText || program.Summary.Any(char.IsControl))
        {
            yield return $"The summary has at most {LongestText} letters, in one line.";
        }
    }

    private static IEnumerable<string> OfLists(EditingProgram program)
    {
        var rows = program.OnMediaEngine ?? [];
        if (rows.Count > MaxRows || rows.Any(row => row is null || !Enum.IsDefined(row.Codec) || !Enum.IsDefined(row.Chroma)))
        {
            yield return $"Formats for a media engine: a list of up to {MaxRows} known formats.";
        }
        else if (rows.Any(row => row.MaxBitDepth is < 8 or > 16 || row.MaxRaster.Width < 1 || row.MaxRaster.Height < 1))
        {
            yield return "Formats for a media engine have a depth of 8 to 16 bit and a raster.";
        }

        if (program.OnOneCore?.Count > EffectCatalogue.All.Count)
        {
            yield return $"There are {EffectCatalogue.All.Count} effects; {program.OnOneCore.Count} are too many for one core.";
            yield break;
        }

        var unknown = (program.OnOneCore ?? []).Where(effect => effect is null || EffectCatalogue.Find(effect) is null).ToList();
        if (unknown.Count > 0)
        {
            yield return $"There is no effect '{unknown[0]}'. Known are {string.Join(", ", EffectCatalogue.All.Select(kind => kind.Id))}.";
        }
    }

    private static IEnumerable<string> OfFigures(EditingProgram program)
    {
        if (program.DecoderCores is < 1 or > PlaybackSettings.MaxThreads)
        {
            yield return $"A decoder keeps 1 to {PlaybackSettings.MaxThreads} cores busy, not {program.DecoderCores}.";
        }

        if (program.GraphicsUnits is < 1 or > EditingProgram.MaxGraphicsUnits)
        {
            yield return $"Frames are shared among 1 to {EditingProgram.MaxGraphicsUnits} graphics units, not {program.GraphicsUnits}.";
        }

        if (program.LookAhead is < 1 or > PlaybackSettings.MaxLookAhead)
        {
            yield return $"The look-ahead is {program.LookAhead} frames; allowed: 1 to {PlaybackSettings.MaxLookAhead}.";
        }

        if (program.ReservesGigabytes is not (>= 0 and <= MostGigabytes))
        {
            yield return $"It reserves 0 to {MostGigabytes:0} GB of memory.";
        }

        if (program.WhenLate == PlayingPolicy.Unpaced)
        {
            yield return "An editing program drops frames or lets the clock slip when it is late; it cannot play without a clock.";
        }

        if (!Enum.IsDefined(program.ComposesOn) || !Enum.IsDefined(program.EffectsAt) || !Enum.IsDefined(program.WhenLate)
            || !Enum.IsDefined(program.RendersAt))
        {
            yield return "A choice has an unknown value.";
        }
    }
}
