using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Playback;
using HardyBench.Core.StandIns;

namespace HardyBench.Core.Advice.Answers;

/// <summary>What the footage takes that a brief wants stored. How much a drive holds is not entered for machines, so it decides
/// nothing.</summary>
/// <param name="BytesAnHour">Of footage such as the work's, every clip once.</param>
public sealed record StoredFootage(double Hours, double BytesAnHour)
{
    public double Bytes => Hours * BytesAnHour;

    /// <returns>Null where the brief does not say how much is kept, or the work has no footage.</returns>
    /// <param name="plans">One for each timeline of the brief, in its order.</param>
    public static StoredFootage? Of(Brief brief, IReadOnlyList<PlaybackPlan> plans)
    {
        if (brief.StoredHours is not { } kept)
        {
            return null;
        }

        var rates = plans
            .Select(plan => (Seconds: StandInAids.Footage(plan).TotalSeconds, Bytes: StandInAids.FootageBytes(plan)))
            .Zip(brief.Timelines, (footage, id) => (footage, Weight: WeightOf(brief, id, footage.Seconds)))
            .Where(one => one.footage.Seconds > 0).ToList();
        var weight = rates.Sum(one => one.Weight);
        return weight > 0
            ? new StoredFootage(
                kept, rates.Sum(one => one.Weight * one.footage.Bytes / one.footage.Seconds) / weight * 3600)
            : null;
    }

    /// <summary>Kinds of footage are kept in the shares in which they come, where the brief says how much of each comes; else in the shares
    /// that the timelines play.</summary>
    private static double WeightOf(Brief brief, string timeline, double seconds) =>
        brief.HoursAWeek is { } hours && hours.Values.Sum() > 0 ? hours.GetValueOrDefault(timeline) : seconds;
}
