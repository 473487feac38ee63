using HardyBench.Core.Playback;
using Parquet;
using Parquet.Serialization;

namespace HardyBench.Formats.Runs;

/// <summary>The frames and loads of a run as one Parquet file: a row is a frame or a load, told apart by the column
/// "record". Columns that do not apply to a row are null. Times are ticks of 100 ns from the key.</summary>
public static class RunColumns
{
    private const string FrameRow = "frame", LoadRow = "load";

    private static readonly ParquetOptions Options = new() { CompressionMethod = CompressionMethod.Zstd };

    public static async Task<byte[]> WriteAsync(IReadOnlyList<FrameRecord> frames, IReadOnlyList<LoadReading> loads)
    {
        using var stream = new MemoryStream();
        await ParquetSerializer.SerializeAsync(frames.Select(Row.Of).Concat(loads.Select(Row.Of)), stream, Options);
        return stream.ToArray();
    }

    /// <exception cref="InvalidDataException">The bytes are not such a file.</exception>
    public static async Task<(IReadOnlyList<FrameRecord> Frames, IReadOnlyList<LoadReading> Loads)> ReadAsync(byte[] bytes)
    {
        try
        {
            using var stream = new MemoryStream(bytes, writable: false);
            var rows = await ParquetSerializer.DeserializeAsync<Row>(stream);
            return (
                [.. rows.Data.Where(row => row.Record == FrameRow).Select(row => row.ToFrame())],
                [.. rows.Data.Where(row => row.Record == LoadRow).Select(row => row.ToLoad())]);
        }
        catch (Exception broken) when (broken is not OutOfMemoryException)
        {
            throw new InvalidDataException("The run's frames and loads cannot be read; the file is damaged.", broken);
        }
    }

    private sealed class Row
    {
        public string Record { get; set; } = FrameRow;

        public int? Frame { get; set; }

        public long? SlotStart { get; set; }

        public long? Ready { get; set; }

        public long? Shown { get; set; }

        public string? Status { get; set; }

        public string? Reason { get; set; }

        public long? Read { get; set; }

        public long? Decode { get; set; }

        public long? Effects { get; set; }

        public long? Wait { get; set; }

        public int? QueueDepth { get; set; }

        public string? Scale { get; set; }

        public long? At { get; set; }

        public string? Load { get; set; }

        public int? Index { get; set; }

        public float? Value { get; set; }

        public static Row Of(FrameRecord frame) => new()
        {
            Record = FrameRow,
            Frame = frame.Frame,
            SlotStart = frame.SlotStart.Ticks,
            Ready = frame.Ready?.Ticks,
            Shown = frame.Shown?.Ticks,
            Status = frame.Status.ToString(),
            Reason = frame.Reason.ToString(),
            Read = frame.Read.Ticks,
            Decode = frame.Decode.Ticks,
            Effects = frame.Effects.Ticks,
            Wait = frame.Wait.Ticks,
            QueueDepth = frame.QueueDepth,
            Scale = frame.Scale == PreviewScale.Full ? null : frame.Scale.ToString(),
        };

        public static Row Of(LoadReading load) => new()
        {
            Record = LoadRow, At = load.At.Ticks, Load = load.Kind.ToString(), Index = load.Index, Value = load.Value,
        };

        public FrameRecord ToFrame() => new(
            Frame!.Value,
            new TimeSpan(SlotStart!.Value),
            Ready is { } ready ? new TimeSpan(ready) : null,
            Shown is { } shown ? new TimeSpan(shown) : null,
            Enum.Parse<FrameStatus>(Status!),
            Enum.Parse<DropReason>(Reason!),
            new TimeSpan(Read!.Value),
            new TimeSpan(Decode!.Value),
            new TimeSpan(Effects!.Value),
            new TimeSpan(Wait!.Value),
            QueueDepth!.Value,
            Scale is null ? PreviewScale.Full : Enum.Parse<PreviewScale>(Scale));

        public LoadReading ToLoad() =>
            new(new TimeSpan(At!.Value), Enum.Parse<LoadKind>(Load!), (short)Index!.Value, Value!.Value);
    }
}
