using System.Globalization;
using HardyBench.Core.Footage;

namespace HardyBench.Core.Timelines;

/// <summary>Frame numbers written as hours, minutes, seconds and frames, by SMPTE ST 12-1.</summary>
public static class Timecode
{
    /// <summary>Timecode of <paramref name="frame"/>: "00:00:06:00", or "00:01:00;02" with drop-frame counting,
    /// which is used for the two rates that have it, 30/1.001 and 60/1.001.</summary>
    /// <exception cref="ArgumentOutOfRangeException">The frame is negative.</exception>
    public static string Of(long frame, FrameRate rate)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(frame);
        var nominal = rate.NominalFramesPerSecond;
        var dropFrame = rate.Denominator == 1001 && nominal % 30 == 0;
        var number = dropFrame ? WithSkippedNumbers(frame, nominal) : frame;
        var (seconds, frames) = (number / nominal, number % nominal);
        return string.Create(
            CultureInfo.InvariantCulture,
            $"{seconds / 3600 % 24:00}:{seconds / 60 % 60:00}:{seconds % 60:00}{(dropFrame ? ';' : ':')}{frames:00}");
    }

    /// <summary>Each minute but every tenth leaves out its first numbers: two at 30, four at 60.</summary>
    private static long WithSkippedNumbers(long frame, int nominal)
    {
        var skipped = nominal / 15;
        var perMinute = nominal * 60L - skipped;
        var perTenMinutes = perMinute * 10 + skipped;
        var (tens, rest) = Math.DivRem(frame, perTenMinutes);
        var minutes = rest < nominal * 60L ? 0 : 1 + (rest - nominal * 60L) / perMinute;
        return frame + skipped * (tens * 9 + minutes);
    }
}
