using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Formats.Json;
using Parquet;
using Parquet.Schema;

namespace HardyBench.Formats.Runs;

/// <summary>The frames and loads of a run as one Parquet file: a row is a frame or a load, distinguished by the column
/// "record"; columns that do not apply to a row are null. Times are microseconds: slot_start and at from the key, ready and shown
/// from the slot's start, the others are durations.</summary>
public static class RunColumns
{
    private const string FrameRow = "frame", LoadRow = "load";

    private static readonly DataField
        Record = new("record", typeof(string), isNullable: false),
        Frame = new DataField<int?>("frame"), SlotStart = new DataField<long?>("slot_start"),
        Ready = new DataField<int?>("ready"), Shown = new DataField<int?>("shown"),
        Status = new("status", typeof(string), isNullable: true), Reason = new("reason", typeof(string), isNullable: true),
        Read = new DataField<int?>("read"), Decode = new DataField<int?>("decode"), Effects = new DataField<int?>("effects"),
        Wait = new DataField<int?>("wait"), Queue = new DataField<int?>("queue"), Scale = new("scale", typeof(string), isNullable: true),
        At = new DataField<long?>("at"), Load = new("load", typeof(string), isNullable: true),
        Index = new DataField<int?>("index"), Value = new DataField<float?>("value");

    private static readonly ParquetSchema Schema = new(
        Record, Frame, SlotStart, Ready, Shown, Status, Reason, Read, Decode, Effects, Wait, Queue, Scale, At, Load, Index, Value);

    /// <summary>Whole numbers are written as differences, which for times that go on steadily are next to nothing.</summary>
    private static readonly ParquetOptions Options = Writing();

    public static async Task<byte[]> WriteAsync(IReadOnlyList<FrameRecord> frames, IReadOnlyList<LoadReading> loads)
    {
        using var stream = new MemoryStream();
        await using (var file = await ParquetWriter.CreateAsync(Schema, stream, Options))
        {
            await new Group(file, frames.Count).WriteAsync(frames, [], FrameRow);
            await new Group(file, loads.Count).WriteAsync([], loads, LoadRow);
        }

        return stream.ToArray();
    }

    /// <exception cref="InvalidDataException">The bytes are not such a file.</exception>
    public static async Task<(IReadOnlyList<FrameRecord> Frames, IReadOnlyList<LoadReading> Loads)> ReadAsync(byte[] bytes)
    {
        try
        {
            // Side by side: a long run is opened in half the time.
            var loads = Task.Run(() => GroupAsync(bytes, 1, LoadsAsync));
            return (await GroupAsync(bytes, 0, FramesAsync), await loads);
        }
        catch (Exception broken) when (broken is not OutOfMemoryException)
        {
            throw new InvalidDataException("The run's frames and loads cannot be read; the file is damaged.", broken);
        }
    }

    private static ParquetOptions Writing()
    {
        var options = new ParquetOptions
        {
            CompressionMethod = CompressionMethod.Zstd, CompressionLevel = System.IO.Compression.CompressionLevel.Fastest,
        };
        foreach (var field in Schema.GetDataFields().Where(field => field.ClrType == typeof(int) || field.ClrType == typeof(long)))
        {
            options.ColumnEncodingHints[field.Name] = EncodingHint.DeltaBinaryPacked;
        }

        return options;
    }

    private static async Task<T[]> GroupAsync<T>(byte[] bytes, int place, Func<ParquetRowGroupReader, Task<T[]>> rows)
    {
        using var stream = new MemoryStream(bytes, writable: false);
        await using var file = await ParquetReader.CreateAsync(stream);
        using var group = file.OpenRowGroupReader(place);
        return await rows(group);
    }

    private static async Task<FrameRecord[]> FramesAsync(ParquetRowGroupReader group)
    {
        var (number, start) = (await ColumnAsync<int>(group, Frame), await ColumnAsync<long>(group, SlotStart));
        var (ready, shown) = (await ColumnAsync<int>(group, Ready), await ColumnAsync<int>(group, Shown));
        var (status, reason, scale) = (await WordsAsync(group, Status), await WordsAsync(group, Reason), await WordsAsync(group, Scale));
        var (read, decode, effects) = (
            await ColumnAsync<int>(group, Read),
            await ColumnAsync<int>(group, Decode),
            await ColumnAsync<int>(group, Effects)
        );
        var (wait, queue) = (await ColumnAsync<int>(group, Wait), await ColumnAsync<int>(group, Queue));
        var (statuses, reasons, scales) = (new Names<FrameStatus>(), new Names<DropReason>(), new Names<PreviewScale>());
        var frames = new FrameRecord[number.Length];
        for (var row = 0; row < frames.Length; row++)
        {
            var slot = start[row]!.Value;
            frames[row] = new FrameRecord(
                number[row]!.Value, Span(slot), Moment(ready[row]), Moment(shown[row]),
                statuses.Of(status[row]),
                reasons.Of(reason[row]),
                Span(read[row]!.Value),
                Span(decode[row]!.Value),
                Span(effects[row]!.Value),
                Span(wait[row]!.Value), queue[row]!.Value, scale[row] is { } smaller ? scales.Of(smaller) : PreviewScale.Full);

            TimeSpan? Moment(int? after) => after is { } known ? Span(slot + known) : null;
        }

        return frames;
    }

    private static async Task<LoadReading[]> LoadsAsync(ParquetRowGroupReader group)
    {
        var (at, kind) = (await ColumnAsync<long>(group, At), await WordsAsync(group, Load));
        var (index, value) = (await ColumnAsync<int>(group, Index), await ColumnAsync<float>(group, Value));
        var kinds = new Names<LoadKind>();
        var loads = new LoadReading[at.Length];
        for (var row = 0; row < loads.Length; row++)
        {
            loads[row] = new LoadReading(Span(at[row]!.Value), kinds.Of(kind[row]), index[row]!.Value, value[row]!.Value);
        }

        return loads;
    }

    private static async Task<T?[]> ColumnAsync<T>(ParquetRowGroupReader group, DataField field)
        where T : struct
    {
        var values = new T?[group.RowCount];
        await group.ReadAsync<T>(field, values.AsMemory());
        return values;
    }

    /// <summary>Words as they lie in the file: making a text of each would take longer than all else together.</summary>
    private static Task<ReadOnlyMemory<char>?[]> WordsAsync(ParquetRowGroupReader group, DataField field) =>
        ColumnAsync<ReadOnlyMemory<char>>(group, field);

    /// <summary>A moment as it comes back from the file. What is kept beside the file has to be rounded likewise, or a slot that begins
    /// exactly at it would fall on its other side.</summary>
    public static TimeSpan Rounded(TimeSpan moment) => Span(Micro(moment));

    private static TimeSpan Span(long microseconds) => new(microseconds * TimeSpan.TicksPerMicrosecond);

    private static long Micro(TimeSpan time) => (long)Math.Round((double)time.Ticks / TimeSpan.TicksPerMicrosecond);

    /// <summary>Values of an enumeration by the names that the file has.</summary>
    private sealed class Names<T>
        where T : struct, Enum
    {
        private readonly Dictionary<string, T>.AlternateLookup<ReadOnlySpan<char>> known =
            Known().GetAlternateLookup<ReadOnlySpan<char>>();

        public T Of(ReadOnlyMemory<char>? name) => known[name!.Value.Span];

        private static Dictionary<string, T> Known()
        {
            var names = Enum.GetValues<T>().ToDictionary(BenchJson.Name);
            foreach (var (former, now) in FormerNames.Values.Where(value => names.ContainsKey(value.Now)))
            {
                names[former] = names[now];
            }

            return names;
        }
    }

    /// <summary>Rows of one kind, written column by column.</summary>
    private sealed class Group(ParquetWriter file, int rows)
    {
        public async Task WriteAsync(IReadOnlyList<FrameRecord> frames, IReadOnlyList<LoadReading> loads, string record)
        {
            using var group = file.CreateRowGroup();
            await group.WriteAsync(Record, (IReadOnlyCollection<string>)[.. Enumerable.Repeat(record, rows)]);
            await NumbersAsync<FrameRecord, int>(group, Frame, frames, frame => frame.Frame);
            await NumbersAsync<FrameRecord, long>(group, SlotStart, frames, frame => Micro(frame.SlotStart));
            await NumbersAsync<FrameRecord, int>(group, Ready, frames, frame => After(frame, frame.Ready));
            await NumbersAsync<FrameRecord, int>(group, Shown, frames, frame => After(frame, frame.Shown));
            await WordsAsync(group, Status, frames, frame => BenchJson.Name(frame.Status));
            await WordsAsync(group, Reason, frames, frame => BenchJson.Name(frame.Reason));
            await NumbersAsync<FrameRecord, int>(group, Read, frames, frame => (int)Micro(frame.Read));
            await NumbersAsync<FrameRecord, int>(group, Decode, frames, frame => (int)Micro(frame.Decode));
            await NumbersAsync<FrameRecord, int>(group, Effects, frames, frame => (int)Micro(frame.Effects));
            await NumbersAsync<FrameRecord, int>(group, Wait, frames, frame => (int)Micro(frame.Wait));
            await NumbersAsync<FrameRecord, int>(group, Queue, frames, frame => frame.QueueDepth);
            await WordsAsync(group, Scale, frames, frame => frame.Scale == PreviewScale.Full ? null : BenchJson.Name(frame.Scale));
            await NumbersAsync<LoadReading, long>(group, At, loads, load => Micro(load.At));
            await WordsAsync(group, Load, loads, load => BenchJson.Name(load.Kind));
            await NumbersAsync<LoadReading, int>(group, Index, loads, load => load.Index);
            await NumbersAsync<LoadReading, float>(group, Value, loads, load => load.Value);
            group.CompleteValidate();
        }

        private static int? After(FrameRecord frame, TimeSpan? moment) =>
            moment is { } known ? (int)(Micro(known) - Micro(frame.SlotStart)) : null;

        private async Task NumbersAsync<TRow, T>(ParquetRowGroupWriter group, DataField field, IReadOnlyList<TRow> of, Func<TRow, T?> value)
            where T : struct
        {
            var values = new T?[rows];
            for (var row = 0; row < of.Count; row++)
            {
                values[row] = value(of[row]);
            }

            await group.WriteAsync<T>(field, values);
        }

        private async Task WordsAsync<TRow>(ParquetRowGroupWriter group, DataField field, IReadOnlyList<TRow> of, Func<TRow, string?> value)
        {
            var words = new string?[rows];
            for (var row = 0; row < of.Count; row++)
            {
                words[row] = value(of[row]);
            }

            await group.WriteAsync(field, (IReadOnlyCollection<string>)words!);
        }
    }
}
