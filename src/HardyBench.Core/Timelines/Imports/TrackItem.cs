using HardyBench.Core.Footage;
using HardyBench.Core.Timelines.Effects;

namespace HardyBench.Core.Timelines.Imports;

/// <summary>A piece of footage that an imported timeline names.</summary>
/// <param name="Key">What layers call it until it is linked.</param>
/// <param name="Name">The name it came with.</param>
/// <param name="Address">Its stated location, or null.</param>
/// <param name="Sha256">Its checksum if the file tells, else null.</param>
/// <param name="Format">What it is if the file tells, else null.</param>
public sealed record ImportedMedia(string Key, string Name, string? Address, string? Sha256, ClipFormat? Format);

/// <summary>One clip on one track of another program's timeline.</summary>
/// <param name="Start">Timeline frame on which it begins.</param>
/// <param name="Order">Its place in the stack; lower lies below.</param>
/// <param name="MediaKey">The footage.</param>
/// <param name="MediaStart">Where in the footage it begins, in seconds of it.</param>
/// <param name="Over">Effects over everything it is stacked with.</param>
/// <param name="StackName">The name of the stack it lies in, or null.</param>
/// <param name="Transition">How it comes in over the one before on its track; null for a cut.</param>
/// <param name="TransitionLength">Frames of that, from its start on.</param>
public sealed record TrackItem(
    long Start, long Length, int Order, string MediaKey, MediaTime MediaStart, IReadOnlyList<Effect> Effects, Retime? Retime,
    IReadOnlyList<Effect> Over, string? StackName, string? Metadata, Transition? Transition = null, long TransitionLength = 0)
{
    public long End => Start + Length;

    /// <summary>As of <see cref="Layer.Opacity"/>; null where the file does not tell.</summary>
    public double? Opacity { get; init; }
}

/// <summary>A moment of footage in frames at some rate, so that nothing is rounded before the footage's own rate is known.</summary>
/// <param name="IsCounted">Whether it is counted from the footage's first frame; else it may be the footage's own timecode.</param>
public readonly record struct MediaTime(double Frames, double Rate, bool IsCounted = false)
{
    /// <summary>The same moment in frames at another rate.</summary>
    public int FramesAt(FrameRate rate) => (int)Math.Clamp(Math.Round(Frames * rate.FramesPerSecond / Rate), 0, int.MaxValue);
}

/// <summary>Another program's timeline, read but not linked to clips yet.</summary>
/// <param name="Notes">What could not be carried over: sentences.</param>
/// <param name="Raster">If the file tells.</param>
/// <param name="BitDepth">If the file tells.</param>
public sealed record ImportedTimeline(
    string Title, FrameRate Rate, IReadOnlyList<TrackItem> Items, IReadOnlyList<ImportedMedia> Media, IReadOnlyList<TimelineMark> Marks,
    string? Metadata, IReadOnlyList<string> Notes, Raster? Raster = null, int? BitDepth = null)
{
    /// <summary>What it is for; null for nothing said.</summary>
    public string? About { get; init; }
}
