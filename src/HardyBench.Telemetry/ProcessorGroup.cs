using System.Globalization;

namespace HardyBench.Telemetry;

/// <summary>How much of the processor a control group leaves this process.</summary>
public static class ProcessorGroup
{
    /// <summary>Cores that it may keep busy in the long run, a part of one too; null where none is held back.</summary>
    public static double? Limit(SystemFiles files) => ControlGroups.Around(files, "cpu")
        .Select(place => place.IsFirstVersion
            ? Share(files.ReadText($"{place.Folder}/cpu.cfs_quota_us"), files.ReadText($"{place.Folder}/cpu.cfs_period_us"))
            : files.ReadText($"{place.Folder}/cpu.max")?.Split(' ') is [var quota, var period] ? Share(quota, period) : null)
        .Min();

    private static double? Share(string? quota, string? period) =>
        double.TryParse(quota, NumberStyles.None | NumberStyles.AllowTrailingWhite, CultureInfo.InvariantCulture, out var allowed)
        && double.TryParse(period, NumberStyles.None | NumberStyles.AllowTrailingWhite, CultureInfo.InvariantCulture, out var of)
        && allowed > 0 && of > 0
            ? allowed / of
            : null;
}
