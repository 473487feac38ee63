using System.Text.Json.Serialization;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback.Subjects;

namespace HardyBench.Core.Playback.Exports;

/// <summary>What an export writes.</summary>
public enum ExportFormat
{
    /// <summary>AVC, 8 bits, 4:2:0, for delivery.</summary>
    Avc,

    /// <summary>HEVC, 10 bits, 4:2:0, for delivery.</summary>
    Hevc,

    /// <summary>RDD 36, 10 bits, 4:2:2, all-intra, to go on working with.</summary>
    Rdd36,
}

/// <summary>What encodes an export.</summary>
public enum EncoderPlace
{
    Processor,
    MediaEngine,
}

/// <summary>The timeline is exported instead of shown.</summary>
public sealed record Export(ExportFormat Format, EncoderPlace Encoder = EncoderPlace.Processor) : Subject
{
    /// <summary>Bits a pixel of the two delivery formats: 52 and 31 Mb/s at UHD and 25 a second. HEVC files are 30 to 40 % smaller than AVC
    /// at like quality. Common practice, no source.</summary>
    private const double AvcBitsPerPixel = 0.25, HevcBitsPerPixel = 0.15;

    /// <summary>Of the second RDD 36 grade: the estimate by which the product makes its clips, no source.</summary>
    private const double Rdd36BitsPerPixel = 4;

    /// <summary>In one breath: "HEVC 10-bit 4:2:0 by the processor".</summary>
    [JsonIgnore]
    public string Name =>
        $"{Written(Raster.Hd, StandardRates.All[0]).Encoding} by the {(Encoder == EncoderPlace.Processor ? "processor" : "media engine")}";

    public override IEnumerable<string> Problems(PlaybackPlan plan)
    {
        var settings = plan.Settings;
        if (!Enum.IsDefined(Format) || !Enum.IsDefined(Encoder))
        {
            yield return "An export has an unknown format or encoder.";
            yield break;
        }

        if (settings.Policy != PlayingPolicy.Unpaced)
        {
            yield return "An export has no clock to keep: it runs as fast as possible.";
        }

        if (settings.Scale != PreviewScale.Full || settings.AutomaticScale || settings.Proxies != Proxies.None || settings.Pictures)
        {
            yield return "An export is complete: full scale, no proxies, no preview pictures.";
        }

        if (Lack(plan.Machine, plan.Timeline.Raster, plan.Timeline.Rate) is { } lack)
        {
            yield return lack;
        }

        if (plan.Machine.Kind == MachineKind.Real && settings.Cache != FileCache.AsFound)
        {
            yield return "An export on this machine uses the file cache as it is, neither cold nor warm.";
        }
    }

    /// <summary>Every format by each of the encoders that a machine has, in the order of the kinds.</summary>
    /// <param name="raster">Of the film.</param>
    public static IReadOnlyList<Export> AllOn(Machine machine, Raster raster, FrameRate rate) =>
        [.. Enum.GetValues<EncoderPlace>().SelectMany(place => Enum.GetValues<ExportFormat>().Select(format => new Export(format, place)))
            .Where(export => export.Lack(machine, raster, rate) is null)];

    /// <summary>What is written, as a clip's format has it.</summary>
    public ClipFormat Written(Raster raster, FrameRate rate)
    {
        var (codec, chroma, depth, gop, bits) = Format switch
        {
            ExportFormat.Avc => (Codec.Avc, ChromaSubsampling.Quarter, 8, GopSeconds, AvcBitsPerPixel),
            ExportFormat.Hevc => (Codec.Hevc, ChromaSubsampling.Quarter, 10, GopSeconds, HevcBitsPerPixel),
            ExportFormat.Rdd36 => (Codec.Rdd36, ChromaSubsampling.Half, 10, 0, Rdd36BitsPerPixel),
            _ => throw new InvalidOperationException($"The encoding of {Format} is not known."),
        };
        return new ClipFormat(
            codec, chroma, depth, raster, rate, Math.Max(1, (int)Math.Round(gop * rate.FramesPerSecond)),
            new DataRate((long)(bits * raster.Pixels * rate.FramesPerSecond)));
    }

    /// <summary>Why a machine cannot write it, a sentence; null where it can.</summary>
    public string? Lack(Machine machine, Raster raster, FrameRate rate)
    {
        var written = Written(raster, rate);
        return Encoder == EncoderPlace.Processor || machine.EncodersOf(written).Count > 0 ? null
            : machine.Kind == MachineKind.Real ? "On this machine only the processor encodes. Choose it, or a stand-in."
            : $"No media engine of {machine.Name} encodes {written.Encoding} at {raster}. "
                + "Let the processor encode, or choose a machine whose engine does.";
    }

    /// <summary>Between two frames that stand alone.</summary>
    private const double GopSeconds = 2;
}
