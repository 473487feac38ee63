using System.Globalization;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Formats.PlayerProtocol;
using HardyBench.Player.Native;

namespace HardyBench.PlayerHost;

/// <summary>Who this is.</summary>
internal static class Greetings
{
    /// <summary>The process that asks, whose work counts as the tool's own; null when nobody said.</summary>
    public static int? Owner =>
        int.TryParse(Environment.GetEnvironmentVariable("HARDYBENCH_OWNER"), CultureInfo.InvariantCulture, out var id) ? id : null;

    private static readonly string[] Confinement = Environment.GetEnvironmentVariable("HARDYBENCH_CONFINED")?.Split(' ') ?? [];

    private static bool Confined(string to) => Confinement.Contains(to);

    /// <summary>Of the kernel's file rules; 0 where there are none.</summary>
    private static int RulesVersion =>
        int.TryParse(Confinement.FirstOrDefault(word => word.StartsWith("landlock=", StringComparison.Ordinal))?.Split('=')[1], out var version)
            ? version
            : 0;

    public static PlayerGreeting Say()
    {
        var (libraries, problem) = ((string?)null, (string?)null);
        try
        {
            libraries = PlayerLibraries.Versions();
        }
        catch (PlayerUnavailableException missing)
        {
            problem = missing.Message;
        }

        return new PlayerGreeting(
            PlayerTalk.Version, typeof(RunHeader).Assembly.GetName().Version?.ToString(3) ?? string.Empty, libraries, problem,
            [nameof(PlayerRequest.Play), nameof(PlayerRequest.Render), nameof(PlayerRequest.Stop), nameof(PlayerRequest.Devices)],
            ReachesAllFiles: !Confined("files"), StaysAlone: Confined("alone"))
        {
            IsApart = Confined("apart"), RulesVersion = RulesVersion,
        };
    }
}

/// <summary>What went wrong, for who asked.</summary>
internal static class Failures
{
    public static PlayerFailure Of(Exception failure) => new(
        failure switch
        {
            PlanRefusedException => PlayerFailureKind.Refused,
            MediaException or NotSupportedException => PlayerFailureKind.Media,
            PlayerUnavailableException => PlayerFailureKind.Unavailable,
            _ => PlayerFailureKind.Unexpected,
        },
        failure.Message);
}
