using System.Text.Json.Serialization;
using HardyBench.Core.Footage;

namespace HardyBench.Core.Machines;

/// <summary>What work takes on one machine, measured on it, in place of what all stand-ins have in common. Like that it is stated for the
/// reference core: the machine's own cores take it divided by their relative speed.</summary>
/// <param name="Band">Within which predictions from it fall in 95 of 100 cases, as a share of the figure.</param>
/// <param name="MeasuredAt">In UTC.</param>
public sealed record MachineCosts(
    IReadOnlyList<CodecCost> Decoding, IReadOnlyList<WorkTime> Treating, double Band, DateTimeOffset MeasuredAt)
{
    /// <summary>How fast a core is while all of them work, beside one that works alone: 1, or less where cores share units, memory or a
    /// host's patience. What more threads gain one decoder has it within its serial part; decoders side by side have it besides.</summary>
    public double AllBusy { get; init; } = 1;

    /// <summary>Beyond what was measured by more than this it counts as extrapolated.</summary>
    private const double Beyond = 1.25;

    /// <summary>The cost of a format's codec: at its own depth where that was measured, else at the other; null where the codec was
    /// not.</summary>
    public CodecCost? Of(ClipFormat format) =>
        Decoding.FirstOrDefault(cost => cost.Codec == format.Codec && cost.Deep == format.BitDepth > 8)
        ?? Decoding.FirstOrDefault(cost => cost.Codec == format.Codec);

    /// <summary>Nanoseconds a pixel of an effect, or of what comes with none; null where it was not measured.</summary>
    public double? NanosecondsOf(string? work, bool deep) => Treating.FirstOrDefault(one => one.Work == work) is { } time
        ? (deep ? time.DeepNanoseconds : time.Nanoseconds) ?? time.Nanoseconds ?? time.DeepNanoseconds
        : null;

    /// <summary>Whether a format lies outside what was measured: another codec or depth, larger frames, or more bits.</summary>
    public bool Extrapolates(ClipFormat format) =>
        Of(format) is not { } cost || cost.Deep != format.BitDepth > 8
        || format.SamplesPerFrame * format.BytesPerSample > Beyond * cost.MostSampleBytes || format.BitsPerFrame > Beyond * cost.MostBits;
}

/// <summary>What decoding a codec takes, as <c>StandIns/DecodeCost</c> has it: seconds a frame = PerSampleByte · S·w + PerBit ·
/// bits.</summary>
/// <param name="Deep">Whether at more than 8 bits a sample.</param>
/// <param name="PerSampleByteHalf">Half of its 95 % interval.</param>
/// <param name="PerBitHalf">Half of its 95 % interval.</param>
/// <param name="SerialPart">The part of the samples' work that a second core does not shorten, 0 to 1.</param>
/// <param name="MostSampleBytes">Of a frame, of all that was measured.</param>
/// <param name="MostBits">Of a frame, of all that was measured.</param>
public sealed record CodecCost(
    Codec Codec, bool Deep, double PerSampleByte, double PerBit, double PerSampleByteHalf, double PerBitHalf, double SerialPart,
    double MostSampleBytes, double MostBits)
{
    /// <summary>The part of the bits' work that a second core does not shorten, 0 to 1; null where it was not distinguished from
    /// <see cref="SerialPart"/>.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public double? BitsSerialPart { get; init; }
}

/// <summary>What one kind of treatment takes for each pixel.</summary>
/// <param name="Work">The id of an effect, or of what comes with none (<c>StandIns/TreatmentCost</c>).</param>
/// <param name="Nanoseconds">At 8 bits a sample; null where it was not measured.</param>
/// <param name="DeepNanoseconds">At more; null where it was not measured.</param>
public sealed record WorkTime(string Work, double? Nanoseconds, double? DeepNanoseconds);
