namespace HardyBench.Core.Footage.Levels;

/// <summary>One row of a standard's table of levels.</summary>
/// <param name="Name">"4.2".</param>
/// <param name="FrameSize">Most pixels (HEVC, AV1) or macroblocks (AVC) in a frame.</param>
/// <param name="Rate">Most of the same in a second.</param>
/// <param name="LongestSide">Longest side a frame may have, in pixels.</param>
/// <param name="DataRate">Most bits a second before the profile's factor.</param>
public sealed record Level(string Name, long FrameSize, long Rate, int LongestSide, DataRate DataRate);

/// <summary>The profile and level that a clip needs by its standard.</summary>
/// <param name="Profile">Such as "High 4:2:2 Intra".</param>
/// <param name="Level">Null when no level of the standard admits raster and rate.</param>
/// <param name="Admitted">The highest data rate that profile and level admit; null without a level.</param>
/// <param name="Refusal">Why the standard does not admit the clip, in words; null when it does.</param>
public sealed record ProfileAndLevel(string Profile, string? Level, DataRate? Admitted, string? Refusal);

/// <summary>Profile and level by standard.</summary>
public static class LevelTables
{
    /// <summary>Null for codecs whose standard has no levels of this kind.</summary>
    public static ProfileAndLevel? Of(ClipFormat format) => format.Codec switch
    {
        Codec.Avc => Find(format, AvcLevels.All, AvcLevels.Macroblocks(format.Raster), AvcLevels.ProfileOf(format)),
        Codec.Hevc => Find(format, HevcLevels.All, HevcLevels.CodedPixels(format.Raster), HevcLevels.ProfileOf(format)),
        Codec.Av1 => Find(format, Av1Levels.All, format.Raster.Pixels, Av1Levels.ProfileOf(format)),
        _ => null,
    };

    /// <summary>The lowest level whose frame size, sides and rate are enough. The data rate is checked against it and not
    /// used to raise it, as encoders without a rate buffer do.</summary>
    private static ProfileAndLevel Find(
        ClipFormat format, IReadOnlyList<Level> levels, long frameSize, (string Name, double Factor) profile)
    {
        var rate = frameSize * format.Rate.FramesPerSecond;
        var longest = Math.Max(format.Raster.Width, format.Raster.Height);
        var level = levels.FirstOrDefault(level => frameSize <= level.FrameSize && rate <= level.Rate && longest <= level.LongestSide);
        if (level is null)
        {
            return new ProfileAndLevel(
                profile.Name, null, null, $"no level of {format.Codec.StandardName} admits {format.RasterAndRate}");
        }

        var admitted = new DataRate((long)(level.DataRate.BitsPerSecond * profile.Factor));
        return new ProfileAndLevel(
            profile.Name, level.Name, admitted,
            format.DataRate.BitsPerSecond > admitted.BitsPerSecond
                ? $"{format.DataRate} is more than the {admitted} of level {level.Name}"
                : null);
    }
}
