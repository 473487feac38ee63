using HardyBench.Core.Playback;
using HardyBench.Server.Runs;

namespace HardyBench.Server.Plays;

/// <summary>What somebody wants played.</summary>
public sealed record PlayRequest(
    string TimelineId, string MachineId, PreviewScale Scale = PreviewScale.Full, PlayingPolicy Policy = PlayingPolicy.KeepTime,
    bool Pictures = false);

/// <summary>A play, in progress or just ended.</summary>
/// <param name="RunId">0 until the player has started.</param>
/// <param name="Frames">Slots settled so far, of <paramref name="Of"/>.</param>
/// <param name="Teeth">Their fates, so that a page that opens late can draw them all.</param>
/// <param name="Problem">Why it could not be played, in words.</param>
public sealed record PlayView(
    long RunId, string TimelineId, string MachineId, string MachineName, PreviewScale Scale, bool Pictures, bool Running, int Frames,
    long Of, string Teeth, string? Problem);

/// <summary>What a play has brought since the last message.</summary>
/// <param name="From">Timeline frame of the first tooth.</param>
/// <param name="Loads">The newest value of each load worth watching.</param>
public sealed record PlayNews(long RunId, int From, string Teeth, IReadOnlyList<LoadNow> Loads)
{
    public static PlayNews Of(long runId, RunProgress progress) => new(
        runId,
        progress.Frames.Count > 0 ? progress.Frames[0].Frame : 0,
        CombTeeth.Of(progress.Frames),
        [.. LoadSeries.Of(progress.Loads, TimeSpan.Zero).Where(series => series.Values.Count > 0)
            .Select(series => new LoadNow(series.Group, series.Name, series.Unit, series.Values[^1]))]);
}

/// <summary>A load at this moment.</summary>
public sealed record LoadNow(string Group, string Name, string Unit, double Value);

/// <summary>A small picture of the screen.</summary>
/// <param name="Jpeg">Base64.</param>
public sealed record PlayPicture(long RunId, int Frame, string Jpeg);
