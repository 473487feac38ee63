using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Formats.Json;
using Parquet;
using Parquet.Schema;

namespace HardyBench.Formats.Runs;

/// <summary>The frames and loads of a run as one Parquet file: a row is a frame or a load, distinguished by the column
/// "record"; columns that do not apply to a row are null. All rows of a row group are of one kind. Times are microseconds: slot_start
/// and at from the key, ready and shown from the slot's start, the others are durations.</summary>
public static class RunColumns
{
    private const string FrameRow = "frame", LoadRow = "load";

    /// <summary>What is held in memory besides the run itself while it is written is a column of so many rows.</summary>
    private const int RowsOfGroup = 32_768;

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
            var buffers = new Buffers();
            foreach (var rows in Groups(frames))
            {
                await new Group(file, buffers, rows.Count).WriteAsync(rows, [], FrameRow);
            }

            foreach (var rows in Groups(loads))
            {
                await new Group(file, buffers, rows.Count).WriteAsync([], rows, LoadRow);
            }
        }

        return stream.ToArray();
    }

    /// <exception cref="InvalidDataException">The bytes are not such a file.</exception>
    public static async Task<(IReadOnlyList<FrameRecord> Frames, IReadOnlyList<LoadReading> Loads)> ReadAsync(byte[] bytes)
    {
        try
        {
            // Side by side: a long run is opened in half the time.
            var loads = Task.Run(() => RowsAsync<LoadReading, long>(bytes, At, LoadsAsync));
            return (await RowsAsync<FrameRecord, int>(bytes, Frame, FramesAsync), await loads);
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

    /// <summary>The rows of a run in groups; one empty group where there are none, so that every file has both kinds.</summary>
    private static IEnumerable<IReadOnlyList<T>> Groups<T>(IReadOnlyList<T> rows) => rows.Count == 0 ? [rows] : rows.Chunk(RowsOfGroup);

    /// <summary>The rows of all groups of a kind.</summary>
    /// <param name="own">A column that applies to every row of the kind, and to no other.</param>
    private static async Task<T[]> RowsAsync<T, TOwn>(byte[] bytes, DataField own, Func<Columns, Memory<T>, Task> read)
        where TOwn : struct
    {
        using var stream = new MemoryStream(bytes, writable: false);
        await using var file = await ParquetReader.CreateAsync(stream);
        var (places, count, columns) = (new List<int>(), 0, new Columns());
        for (var place = 0; place < file.RowGroupCount; place++)
        {
            using var group = columns.Of(file.OpenRowGroupReader(place));
            if (group.RowCount > 0 && (await columns.OfAsync<TOwn>(own)).Span[0] is not null)
            {
                places.Add(place);
                count += (int)group.RowCount;
            }
        }

        var (all, next) = (new T[count], 0);
        foreach (var place in places)
        {
            using var group = columns.Of(file.OpenRowGroupReader(place));
            await read(columns, all.AsMemory(next, (int)group.RowCount));
            next += (int)group.RowCount;
        }

        return all;
    }

    private static async Task FramesAsync(Columns columns, Memory<FrameRecord> frames)
    {
        var (number, start) = (await columns.OfAsync<int>(Frame), await columns.OfAsync<long>(SlotStart));
        var (ready, shown) = (await columns.OfAsync<int>(Ready), await columns.OfAsync<int>(Shown));
        var (status, reason, scale) = (await columns.WordsAsync(Status), await columns.WordsAsync(Reason), await columns.WordsAsync(Scale));
        var (read, decode, effects) = (
            await columns.OfAsync<int>(Read), await columns.OfAsync<int>(Decode), await columns.OfAsync<int>(Effects));
        var (wait, queue) = (await columns.OfAsync<int>(Wait), await columns.OfAsync<int>(Queue));
        var (statuses, reasons, scales) = (new Names<FrameStatus>(), new Names<DropReason>(), new Names<PreviewScale>());
        for (var row = 0; row < frames.Length; row++)
        {
            var slot = start.Span[row]!.Value;
            frames.Span[row] = new FrameRecord(
                number.Span[row]!.Value, Span(slot), Moment(ready.Span[row]), Moment(shown.Span[row]),
                statuses.Of(status.Span[row]),
                reasons.Of(reason.Span[row]),
                Span(read.Span[row]!.Value),
                Span(decode.Span[row]!.Value),
                Span(effects.Span[row]!.Value),
                Span(wait.Span[row]!.Value), queue.Span[row]!.Value,
                scale.Span[row] is { } smaller ? scales.Of(smaller) : PreviewScale.Full);

            TimeSpan? Moment(int? after) => after is { } known ? Span(slot + known) : null;
        }
    }

    private static async Task LoadsAsync(Columns columns, Memory<LoadReading> loads)
    {
        var (at, kind) = (await columns.OfAsync<long>(At), await columns.WordsAsync(Load));
        var (index, value) = (await columns.OfAsync<int>(Index), await columns.OfAsync<float>(Value));
        var kinds = new Names<LoadKind>();
        for (var row = 0; row < loads.Length; row++)
        {
            loads.Span[row] = new LoadReading(
                Span(at.Span[row]!.Value), kinds.Of(kind.Span[row]), index.Span[row]!.Value, value.Span[row]!.Value);
        }
    }

    /// <summary>The columns of one group after another, each in the same room.</summary>
    private sealed class Columns
    {
        private readonly Buffers buffers = new();
        private ParquetRowGroupReader group = null!;

        public ParquetRowGroupReader Of(ParquetRowGroupReader next) => group = next;

        /// <param name="field">One that may be null.</param>
        /// <returns>Valid until the column is read of the next group.</returns>
        public async Task<ReadOnlyMemory<T?>> OfAsync<T>(DataField field)
            where T : struct
        {
            var values = buffers.Of<T?>(field, (int)group.RowCount).AsMemory();
            await group.ReadAsync<T>(field, values);
            return values;
        }

        /// <summary>Words as they lie in the file: making a text of each would take longer than all else together.</summary>
        /// <inheritdoc cref="OfAsync"/>
        public Task<ReadOnlyMemory<ReadOnlyMemory<char>?>> WordsAsync(DataField field) => OfAsync<ReadOnlyMemory<char>>(field);
    }

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

    /// <summary>Room for columns, used again for the next group.</summary>
    private sealed class Buffers
    {
        private readonly Dictionary<object, Array> known = [];

        /// <param name="whose">Who uses the same key gets the same room.</param>
        /// <returns>What was in it before may still be there.</returns>
        public ArraySegment<T> Of<T>(object whose, int rows)
        {
            if (!known.TryGetValue(whose, out var room) || room.Length < rows)
            {
                known[whose] = room = new T[rows];
            }

            return new ArraySegment<T>((T[])room, 0, rows);
        }
    }

    /// <summary>Rows of one kind, written column by column.</summary>
    private sealed class Group(ParquetWriter file, Buffers buffers, int rows)
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
            where T : struct => await group.WriteAsync<T>(field, Filled(of, value).AsMemory());

        private async Task WordsAsync<TRow>(
            ParquetRowGroupWriter group, DataField field, IReadOnlyList<TRow> of, Func<TRow, string?> value) =>
            await group.WriteAsync(field, (IReadOnlyCollection<string>)Filled(of, value)!);

        /// <summary>A column; null where it does not apply to the rows.</summary>
        private ArraySegment<T> Filled<TRow, T>(IReadOnlyList<TRow> of, Func<TRow, T> value)
        {
            var values = buffers.Of<T>(typeof(T), rows);
            values.AsSpan().Clear();
            for (var row = 0; row < of.Count; row++)
            {
                values[row] = value(of[row]);
            }

            return values;
        }
    }
}
