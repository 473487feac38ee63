using System.Security.Cryptography;
using System.Text.Json;
using FFMpegCore;
using FFMpegCore.Pipes;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Formats.Json;
using HardyBench.Player.Effects;
using HardyBench.Player.Native;
using HardyBench.Player.Playing;

namespace HardyBench.Player.Aids;

/// <summary>Renders passages beforehand, with the very pictures that playing them shows, all-intra (RDD 36).</summary>
public sealed class PreRenderer(AidFolder folder, IClipFiles files, EffectFilters filters)
{
    /// <summary>The key of a passage's render: everything that its pictures hang on, so that any edit makes another key.</summary>
    public static string KeyOf(PlaybackPlan plan, int index)
    {
        var passage = plan.Timeline.Passages[index];
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
    /// <exception cref="Clips.MakingException">It could not be rendered; nothing half-made is left.</exception>
    public Task<AidNote> RenderAsync(PlaybackPlan plan, int index, IProgress<double>? progress, CancellationToken stop)
    {
        // Whatever the settings say, a render has the timeline's full raster and every frame.
        var whole = plan with { Settings = new PlaybackSettings(Policy: PlayingPolicy.KeepFrames), Rendered = null };
        var passage = plan.Timeline.Passages[index];
        var (rate, raster) = (plan.Timeline.Rate, plan.Timeline.Raster);
        return AidMaking.MakeAsync(folder, KeyOf(plan, index), $"a pre-render of “{passage.Question}”", passage.Question, part => FFMpegArguments
            .FromPipeInput(new RawVideoPipeSource(Pictures(whole, passage, progress, stop)) { FrameRate = rate.FramesPerSecond })
            .OutputToFile(part, overwrite: true, options => options.WithCustomArgument(
                $"-vf scale={raster.Width}:{raster.Height} -r {rate.Numerator}/{rate.Denominator} {AidMaking.Encoder}")), stop);
    }

    private IEnumerable<IVideoFrame> Pictures(PlaybackPlan plan, Passage passage, IProgress<double>? progress, CancellationToken stop)
    {
        var clock = new PassageClock(new RunClock(), plan.Timeline.Rate, 0, keepsTime: false);
        using var pipeline = new PassagePipeline(plan, passage, clock, files, new PassageGraph(filters), Environment.ProcessorCount);
        for (var position = 0; position < passage.FrameCount; position++)
        {
            stop.ThrowIfCancellationRequested();
            var frames = pipeline.Take(position) ?? throw new MediaException($"frame {position} could not be decoded");
            using var picture = pipeline.Treat(frames, position) ?? throw new MediaException($"frame {position} could not be treated");
            foreach (var frame in frames)
            {
                frame.Dispose();
            }

            progress?.Report((position + 1.0) / passage.FrameCount);
            yield return new RawPicture(picture);
        }
    }

    private sealed record Ingredients(Raster Raster, FrameRate Rate, int? BitDepth, Passage Passage, IReadOnlyList<string?> Clips);

    /// <summary>The formats in which passages end; see <see cref="EffectFilters.Yuv"/>.</summary>
    private sealed class RawPicture : IVideoFrame
    {
        private readonly byte[] bytes;

        public RawPicture(FrameHandle picture)
        {
            bytes = picture.CopyPlanes();
            var raster = picture.Raster;
            (Width, Height) = (raster.Width, raster.Height);
            Format = EffectFilters.Yuv(deep: bytes.LongLength > raster.Pixels * 3 / 2);
        }

        public int Width { get; }

        public int Height { get; }

        public string Format { get; }

        public void Serialize(Stream pipe) => pipe.Write(bytes);

        public Task SerializeAsync(Stream pipe, CancellationToken token) => pipe.WriteAsync(bytes, token).AsTask();
    }
}
