using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using static System.FormattableString;

namespace HardyBench.Core.Advice.Briefs;

/// <summary>A brief that cannot be worked with; the message says what is wrong with it.</summary>
public sealed class BriefRefusedException(string message) : Exception(message);

/// <summary>What keeps something from being a brief.</summary>
public static class BriefLimits
{
    public const int LongestName = 80, MaxTimelines = 20;

    private const int LongestId = 60;
    private const double MaxGrowth = 10, Loudest = 140, MaxHours = 1000, MaxStored = 1_000_000, MostWait = 60, MaxSession = 1440;
    private const decimal MaxMoney = 10_000_000;

    /// <exception cref="BriefRefusedException">Something is wrong with it; everything is named.</exception>
    public static Brief Checked(Brief brief)
    {
        var problems = Problems(brief).ToList();
        return problems.Count == 0 ? brief : throw new BriefRefusedException(string.Join(' ', problems));
    }

    /// <summary>A sentence each; nothing for one that can be answered.</summary>
    public static IEnumerable<string> Problems(Brief brief)
    {
        if (string.IsNullOrWhiteSpace(brief.Name) || brief.Name.Length > LongestName || brief.Name.Any(char.IsControl))
        {
            yield return $"A brief has a name of 1 to {LongestName} letters.";
        }

        if (brief.Id is null or { Length: > LongestId } || brief.Id.Any(letter => !char.IsAsciiLetterOrDigit(letter) && letter != '-'))
        {
            yield return $"The id of a brief has up to {LongestId} letters, digits and hyphens.";
        }

        if (brief.Timelines is null || brief.Timelines.Count is 0 or > MaxTimelines || brief.Timelines.Any(string.IsNullOrEmpty)
            || brief.Timelines.Distinct().Count() < brief.Timelines.Count)
        {
            yield return $"The work of a brief is 1 to {MaxTimelines} timelines, each named once.";
        }

        if (brief.HoursAWeek?.Any(hours => hours.Value is not (>= 0 and <= MaxHours)) == true)
        {
            yield return $"Hours of footage a week: 0 to {MaxHours} of each kind.";
        }

        if (brief.StoredHours is not (null or (> 0 and <= MaxStored)))
        {
            yield return Invariant($"Stored footage: more than 0 and at most {MaxStored:N0} hours; omit it if it is unknown.");
        }

        if (brief.HoursAWeek?.Keys.FirstOrDefault(id => brief.Timelines?.Contains(id) != true) is { } other)
        {
            yield return $"Hours a week are stated for '{other}', which is not one of the brief's timelines.";
        }

        if (!Enum.IsDefined(brief.Scale) || brief.Forms?.Any(form => !Enum.IsDefined(form)) == true
            || brief.MayUse?.Any(kind => !Enum.IsDefined(kind)) == true)
        {
            yield return "A preview scale, a form or a way of working is unknown.";
        }

        if (brief.Growth is not (>= 1 and <= MaxGrowth))
        {
            yield return Invariant($"Growth of the work: 1 to {MaxGrowth} times, not {brief.Growth}.");
        }

        if (brief.MostStartSeconds is not (null or (> 0 and <= MostWait)) || brief.MostScrubSeconds is not (null or (> 0 and <= MostWait)))
        {
            yield return $"A limit for start or scrubbing: more than 0 and at most {MostWait} seconds; omit it for no limit.";
        }

        if (brief.SessionMinutes is not (>= 0 and <= MaxSession))
        {
            yield return Invariant($"A working session: 0 to {MaxSession} minutes, not {brief.SessionMinutes}.");
        }

        foreach (var problem in brief.Others?.Problems() ?? [])
        {
            yield return problem;
        }

        if (brief.MostDecibels is not (null or (> 0 and <= Loudest)))
        {
            yield return $"A noise limit: more than 0 and at most {Loudest} dB(A).";
        }

        if (brief.Budget is not (null or (> 0 and <= MaxMoney)))
        {
            yield return Invariant($"A budget: more than 0 and at most {MaxMoney:N0} {Machine.Currency}; omit it for no limit.");
        }
    }
}
