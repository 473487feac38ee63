using System.Globalization;
using HardyBench.Core.Footage;

namespace HardyBench.Core.Timelines;

/// <summary>Frame numbers written as hours, minutes, seconds and frames, by SMPTE ST 12-1.</summary>
public static class Timecode
{
    /// <summary>Timecode of <paramref name="frame"/>: "00:00:06:00", or "00:01:00;02" with drop-frame counting,
    /// which is used for the two rates that have it, 30/1.001 and 60/1.001.</summary>
    /// <param name="countsAll">True to leave no numbers out whatever the rate.</param>
    /// <exception cref="ArgumentOutOfRangeException">The frame is negative.</exception>
    public static string Of(long frame, FrameRate rate, bool? countsAll = null)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(frame);
        var nominal = rate.NominalFramesPerSecond;
        var dropFrame = countsAll is not true && HasDropFrame(rate);
        var number = dropFrame ? WithSkippedNumbers(frame, nominal) : frame;
        var (seconds, frames) = (number / nominal, number % nominal);
        return string.Create(
            CultureInfo.InvariantCulture,
            $"{seconds / 3600 % 24:00}:{seconds / 60 % 60:00}:{seconds % 60:00}{(dropFrame ? ';' : ':')}{frames:00}");
    }

    /// <summary>The frame that a timecode stands for. With drop-frame counting either sign may part the frames; without
    /// <paramref name="dropFrame"/> the sign says which counting it is.</summary>
    /// <param name="dropFrame">Whether numbers are left out; null to go by the sign before the frames.</param>
    /// <exception cref="FormatException">It is no timecode, or a number that this rate does not have.</exception>
    public static long Parse(string text, FrameRate rate, bool? dropFrame = null)
    {
        var parts = text.Trim().Split(':', ';', '.');
        var nominal = rate.NominalFramesPerSecond;
        if (parts.Length != 4 || !parts.All(part => part.Length is 2 or 3 && part.All(char.IsAsciiDigit)))
        {
            throw new FormatException($"'{text}' is not a timecode; it should look like 01:00:00:00.");
        }

        var numbers = parts.Select(part => int.Parse(part, CultureInfo.InvariantCulture)).ToArray();
        var (hours, minutes, seconds, frames) = (numbers[0], numbers[1], numbers[2], numbers[3]);
        var drops = (dropFrame ?? text.AsSpan().LastIndexOfAny(';', '.') > 0) && HasDropFrame(rate);
        if (minutes > 59 || seconds > 59 || frames >= nominal
            || (drops && seconds == 0 && frames < nominal / 15 && minutes % 10 != 0))
        {
            throw new FormatException($"'{text}' does not exist at {rate} frames a second.");
        }

        var allMinutes = hours * 60L + minutes;
        var number = (allMinutes * 60 + seconds) * nominal + frames;
        return drops ? number - nominal / 15 * (allMinutes - allMinutes / 10) : number;
    }

    /// <summary>Whether a rate has drop-frame counting: 30/1.001 and 60/1.001.</summary>
    public static bool HasDropFrame(FrameRate rate) => rate.Denominator == 1001 && rate.NominalFramesPerSecond % 30 == 0;

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
