using System.Security.Cryptography;
using System.Text.Json;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Formats.Json;
using HardyBench.Media.Commands;

namespace HardyBench.Media.Aids;

/// <summary>Renders passages beforehand, with the very pictures that playing them shows, all-intra (RDD 36).</summary>
public sealed class PreRenderer(AidFolder folder, IPassagePictures pictures)
{
    /// <summary>The key of a passage's render: everything that its pictures hang on, so that any edit makes another key.</summary>
    public static string KeyOf(PlaybackPlan plan, int index)
    {
        var passage = (plan with { Rendered = null }).Played(index);
        var digest = SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(
            new Ingredients(
                plan.Timeline.Raster, plan.Timeline.Rate, plan.Timeline.BitDepth, passage with { Question = string.Empty },
                [.. passage.Layers.Select(layer => plan.Clips[layer.ClipId].Sha256)]),
            BenchJson.Options));
        return $"render-{Convert.ToHexStringLower(digest)[..24]}";
    }

    /// <summary>The passage that plays a render instead.</summary>
    public static Passage PassageOf(Passage passage, Clip render) => passage with
    {
        Layers = [new Layer(render.Id, [])], Over = [], Transition = null,
    };

    /// <summary>Renders a passage if its render is not there.</summary>
    /// <exception cref="Clips.CreationException">It could not be rendered; nothing half-made is left.</exception>
    public Task<AidNote> RenderAsync(PlaybackPlan plan, int index, IProgress<double>? progress, CancellationToken stop)
    {
        // Whatever the settings say, a render has the timeline's full raster and every frame.
        var whole = plan with { Settings = new PlaybackSettings(Policy: PlayingPolicy.KeepFrames), Rendered = null };
        var passage = whole.Played(index);
        // What is treated has even sides, as the codec wants them: an odd raster loses its last column or row.
        var raster = whole.Settings.ProcessedRaster(plan.Timeline.Raster);
        var video = new RawVideo(raster, WorkingFormat.Of(whole.IsDeep(passage)), plan.Timeline.Rate,
            Counted(pictures.Of(whole, index, stop), passage.FrameCount, progress));
        return AidMaking.MakeAsync(
            folder, KeyOf(plan, index), $"a pre-render of “{passage.Question}”", passage.Question, video,
            part => MediaCommand.FromPictures(video, AidMaking.Encoder, part), stop);
    }

    private static IEnumerable<ReadOnlyMemory<byte>> Counted(IEnumerable<ReadOnlyMemory<byte>> all, int of, IProgress<double>? progress)
    {
        var done = 0;
        foreach (var picture in all)
        {
            yield return picture;
            progress?.Report((double)++done / of);
        }
    }

    private sealed record Ingredients(Raster Raster, FrameRate Rate, int? BitDepth, Passage Passage, IReadOnlyList<string?> Clips);
}
