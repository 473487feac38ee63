using HardyBench.Media.Commands;

namespace HardyBench.Media.Clips.Probing;

/// <summary>A picture as FFmpeg's own decoding gives it.</summary>
/// <param name="Stamp">When it is shown, in the track's own units; null where that is unknown.</param>
/// <param name="Intra">Whether it refers to no other.</param>
/// <param name="Key">Whether decoding can start afresh on it.</param>
internal readonly record struct ProbedPicture(
    long? Stamp,
    long Width,
    long Height,
    string PixelFormat,
    bool Intra,
    bool Key,
    bool Interlaced
);

/// <summary>The first pictures of a track, in the order of showing.</summary>
/// <param name="Errors">What the decoder complained of, one line; null when it did not.</param>
/// <param name="Ended">Whether decoding took too long, so that there may be more.</param>
internal sealed record ProbedPictures(IReadOnlyList<ProbedPicture> All, string? Errors, bool Ended)
{
    private const int Most = 300;

    /// <summary>Whether these are all there are.</summary>
    public bool AreAll => !Ended && All.Count < Most;

    /// <summary>Whether any of them is made of two fields.</summary>
    public bool Fields => All.Any(picture => picture.Interlaced);

    /// <summary>The longest stretch from one picture that refers to no other to the next; null where there are not two of them.</summary>
    public int? LongestGop => Longest(picture => picture.Intra);

    /// <summary>The longest stretch from one on which decoding can start to the next; null where there are not two of them.</summary>
    public int? LongestKeyInterval => Longest(picture => picture.Key);

    /// <summary>Whether each stands alone. Some containers say so of all pictures of a codec, whatever they are.</summary>
    public bool AllKeys => All.All(picture => picture.Key);

    /// <summary>What changes from one picture to the next, in words; null when nothing does.</summary>
    public string? Change
    {
        get
        {
            var kinds = All.Select(picture => $"{picture.Width}×{picture.Height} {picture.PixelFormat}").Distinct().Take(2).ToList();
            return kinds.Count < 2 ? null : $"from {kinds[0]} to {kinds[1]}";
        }
    }

    private int? Longest(Func<ProbedPicture, bool> counts)
    {
        var places = All.Index().Where(picture => counts(picture.Item)).Select(picture => picture.Index).ToList();
        return places.Count < 2 ? null : places.Append(All.Count).Zip(places.Append(All.Count).Skip(1), (from, to) => to - from).Max();
    }

    public static async Task<ProbedPictures> ReadAsync(string path, int track, CommandLimits limits, CancellationToken stop)
    {
        // Half as many pieces again: some hold no picture of their own.
        var outcome = await MediaCommand.RunAsync(
            MediaCommand.ProbeOf(path, [
                "-threads", "2", "-select_streams", $"{track}", "-read_intervals", $"%+#{Most * 3 / 2}", "-of", "compact=p=0",
                "-show_entries", "frame=best_effort_timestamp,key_frame,width,height,pix_fmt,pict_type,interlaced_frame",
            ]),
            limits, null, stop);
        var pictures = outcome.Output.Split('\n').Select(Probing.Fields.Of).Where(fields => fields.ContainsKey("pix_fmt")).Take(Most)
            .Select(fields => new ProbedPicture(
                fields.Number("best_effort_timestamp"), fields.Number("width") ?? 0, fields.Number("height") ?? 0,
                fields["pix_fmt"],
                fields.GetValueOrDefault("pict_type") == "I",
                fields.Number("key_frame") == 1,
                fields.Number("interlaced_frame") == 1
            ))
            .ToList();
        return new ProbedPictures(
            pictures,
            outcome.Errors.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).FirstOrDefault(),
            outcome.WasEnded
        );
    }
}
