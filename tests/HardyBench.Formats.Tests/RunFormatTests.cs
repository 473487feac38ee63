using System.Text.Json;
using CsCheck;
using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Pacing;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Formats.Luts;
using HardyBench.Formats.Runs;
using HardyBench.Formats.Timelines;

namespace HardyBench.Formats.Tests;

public sealed class RunFormatTests
{
    private static readonly Gen<TimeSpan> Times = Gen.Long[0, 2_000_000_000]
        .Select(microseconds => TimeSpan.FromMicroseconds(microseconds));

    private static readonly Gen<FrameRecord> Frames = Gen.Select(
        Gen.Int[0, 1_000_000], Times, Times, Gen.Enum<FrameStatus>(), Gen.Enum<DropReason>(), Gen.Int[0, 12],
        (frame, start, other, status, reason, queue) => new FrameRecord(
            frame, start, queue % 2 == 0 ? null : other, queue % 3 == 0 ? null : other, status, reason, other, start, other, start, queue));

    private static readonly Gen<LoadReading> Loads = Gen.Select(
        Times,
        Gen.Enum<LoadKind>(),
        Gen.Short[0, 63],
        Gen.Float[0, 1e12f],
        (at, kind, index, value) => new LoadReading(at, kind, index, value)
    );

    /// <summary>To the microsecond.</summary>
    [Fact]
    public Task Frames_and_loads_come_back_from_parquet_as_they_went_in() =>
        Gen.Select(Frames.Array[0, 50], Loads.Array[0, 50]).SampleAsync(
            async (frames, loads) =>
            {
                var (framesBack, loadsBack) = await RunColumns.ReadAsync(await RunColumns.WriteAsync(frames, loads));
                Assert.Equal(frames, framesBack);
                Assert.Equal(loads, loadsBack);
            },
            iter: 200);

    /// <summary>A long run is written in several row groups.</summary>
    [Fact]
    public async Task A_long_run_comes_back_from_parquet_in_order()
    {
        var frames = Enumerable.Range(0, 70_000).Select(n => new FrameRecord(
            n, TimeSpan.FromMilliseconds(n), null, n % 3 == 0 ? TimeSpan.FromMilliseconds(n + 1) : null, FrameStatus.Late, DropReason.None,
            TimeSpan.Zero, TimeSpan.Zero, TimeSpan.Zero, TimeSpan.Zero, n % 7)).ToArray();
        var loads = Enumerable.Range(0, 100_000)
            .Select(n => new LoadReading(TimeSpan.FromMilliseconds(n), (LoadKind)(n % 5), n % 11, n)).ToArray();

        var written = await RunColumns.WriteAsync(frames, loads);
        var (framesBack, loadsBack) = await RunColumns.ReadAsync(written);

        Assert.Equal(frames, framesBack);
        Assert.Equal(loads, loadsBack);
        await using var file = await Parquet.ParquetReader.CreateAsync(new MemoryStream(written));
        Assert.Equal(3 + 4, file.RowGroupCount);
    }

    /// <summary>Pieces are kept as the player says them, exact to the tick; those of earlier versions, in columns, are read too.</summary>
    [Fact]
    public Task A_piece_of_a_run_comes_back_as_it_went_in() =>
        Gen.Select(Frames.Array[0, 30], Loads.Array[0, 30]).SampleAsync(
            async (frames, loads) =>
            {
                foreach (
                    var piece in new[]
                    {
                        RunPiece.Write(new RunProgress(frames, loads, [])),
                        await RunColumns.WriteAsync(frames, loads),
                    }
                )
                {
                    var (framesBack, loadsBack) = await RunPiece.ReadAsync(piece);
                    Assert.Equal(frames, framesBack);
                    Assert.Equal(loads, loadsBack);
                }
            },
            iter: 30);

    [Theory]
    [InlineData("")]
    [InlineData("{}")]
    [InlineData("{\"ended\":\"finished\"}")]
    [InlineData("{\"progressed\":{\"frames\":[{\"fra")]
    [InlineData("PAR1")]
    public Task A_damaged_piece_is_a_clear_error(string piece) =>
        Assert.ThrowsAsync<InvalidDataException>(() => RunPiece.ReadAsync(System.Text.Encoding.UTF8.GetBytes(piece)));

    [Fact]
    public async Task A_damaged_blob_is_a_clear_error()
    {
        var whole = await RunColumns.WriteAsync([], [new LoadReading(TimeSpan.Zero, LoadKind.Core, 0, 1)]);

        await Assert.ThrowsAsync<InvalidDataException>(() => RunColumns.ReadAsync(whole[..(whole.Length / 2)]));
        await Assert.ThrowsAsync<InvalidDataException>(() => RunColumns.ReadAsync([1, 2, 3]));
    }

    [Fact]
    public void A_run_s_json_holds_what_a_reader_needs()
    {
        var run = Sample();
        using var json = JsonDocument.Parse(RunJson.Write(7, run, RunFindings.Of(run)));
        var root = json.RootElement;
        var passage = root.GetProperty("passages")[0];

        Assert.Equal("test", root.GetProperty("machine").GetProperty("id").GetString());
        Assert.Equal("abc", root.GetProperty("clipChecksums").GetProperty("c").GetString());
        Assert.Equal("keepTime", root.GetProperty("settings").GetProperty("policy").GetString());
        foreach (
            var name in new[]
            {
                "number",
                "name",
                "slots",
                "onTime",
                "late",
                "startUpDrops",
                "steadyDrops",
                "shownRate",
                "longestFreezeMs",
                "verdict",
                "limiter",
            }
        )
        {
            Assert.True(passage.TryGetProperty(name, out _), name);
        }

        Assert.Equal(("holds", 50), (passage.GetProperty("verdict").GetString(), passage.GetProperty("slots").GetInt32()));
    }

    /// <summary>Quoting and line ends as RFC 4180 says.</summary>
    [Fact]
    public void Frames_as_text_have_a_line_a_slot_and_quote_what_people_wrote()
    {
        var lines = RunCsv
            .Frames(Sample(), [new RunMark(1, TimeSpan.FromMilliseconds(90), 2, MarkKind.PictureFault, "green, \"flash\"")])
            .Split("\r\n");

        Assert.Equal(
            "frame,timecode,passage,slot_start_ms,ready_ms,shown_ms,status,reason,read_ms,decode_ms,effects_ms,wait_ms,queue,scale,marks",
            lines[0]
        );
        Assert.Equal(52, lines.Length);
        Assert.StartsWith("2,00:00:00:02,1,80,", lines[3], StringComparison.Ordinal);
        Assert.EndsWith(",full,\"pictureFault: green, \"\"flash\"\"\"", lines[3], StringComparison.Ordinal);
        Assert.EndsWith(",full,", lines[4], StringComparison.Ordinal);
        Assert.Empty(lines[^1]);
    }

    [Fact]
    public void Lags_as_text_leave_empty_what_never_came()
    {
        var run = Sample() with
        {
            Lags =
            [
                new LagReading(GestureKind.Jump, "to a far frame", 7, TimeSpan.FromSeconds(1), TimeSpan.FromMilliseconds(40.5)),
                new LagReading(GestureKind.Sweep, "dragged", 9, TimeSpan.FromSeconds(2), null),
            ],
        };

        Assert.Equal(
            "kind,gesture,frame,asked_ms,lag_ms\r\njump,to a far frame,7,1000,40.5\r\nsweep,dragged,9,2000,\r\n",
            RunCsv.Lags(run)
        );
    }

    /// <summary>Members and phases as the Trace Event format's public description has them (Chromium project; from memory).</summary>
    [Fact]
    public void A_trace_has_a_span_a_slot_counters_for_loads_and_instants_for_marks()
    {
        var run = Sample() with { Loads = [new LoadReading(TimeSpan.FromSeconds(1), LoadKind.Core, 3, 0.5f)] };
        using var json = JsonDocument.Parse(TraceEvents.Write(run, [new RunMark(1, TimeSpan.FromSeconds(1), 25, MarkKind.Fan, "")]));
        var events = json.RootElement.GetProperty("traceEvents").EnumerateArray().ToLookup(one => one.GetProperty("ph").GetString());

        Assert.All(
            events.SelectMany(group => group),
            one => Assert.All(["name", "ph", "ts", "pid", "tid"], member => Assert.True(one.TryGetProperty(member, out _), member))
        );
        var slots = events["X"].Where(one => one.GetProperty("tid").GetInt32() == 1).ToList();
        Assert.Equal(50, slots.Count);
        Assert.Equal((40_000.0, 40_000.0), (slots[1].GetProperty("ts").GetDouble(), slots[1].GetProperty("dur").GetDouble()));
        Assert.Equal(0.5, Assert.Single(events["C"]).GetProperty("args").GetProperty("value").GetDouble());
        Assert.Equal(
            (1e6, "fan"),
            (Assert.Single(events["i"]).GetProperty("ts").GetDouble(), events["i"].Single().GetProperty("name").GetString())
        );
        Assert.Contains(events["M"], one => one.GetProperty("name").GetString() == "thread_name");
    }

    [Fact]
    public void A_timeline_comes_back_from_json_with_its_effects_and_the_same_digest()
    {
        var timeline = Sample().Header.Timeline;
        var back = TimelineJson.Read(TimelineJson.Write(timeline));

        Assert.Equal(TimelineJson.Digest(timeline), TimelineJson.Digest(back));
        Assert.Equal(timeline.Passages[0].Layers[0].Effects, back.Passages[0].Layers[0].Effects);
        Assert.NotEqual(TimelineJson.Digest(timeline), TimelineJson.Digest(timeline with { Raster = Raster.Uhd }));
    }

    [Theory]
    [InlineData("null")]
    [InlineData("{")]
    [InlineData("""{"id":"t","title":"T","raster":{"width":0,"height":2},"rate":{"numerator":25,"denominator":1},"passages":[]}""")]
    [InlineData("""{"id":"t","title":"T","raster":7,"rate":{"numerator":25,"denominator":1},"passages":[]}""")]
    public void Text_that_is_no_timeline_is_a_clear_error(string text) =>
        Assert.ThrowsAny<JsonException>(() => TimelineJson.Read(text));

    [Fact]
    public void A_cube_has_red_running_fastest_and_stays_within_its_range()
    {
        var lines = CubeLut
            .Write("swap", 2, (red, green, blue) => (blue * 2, green, red))
            .Split('\n', StringSplitOptions.RemoveEmptyEntries);

        Assert.Equal(["TITLE \"swap\"", "LUT_3D_SIZE 2"], lines[..2]);
        Assert.Equal(8, lines.Length - 2);
        Assert.Equal("0.000000 0.000000 1.000000", lines[3]);
        Assert.Equal("1.000000 0.000000 0.000000", lines[6]);
    }

    [Fact]
    public void A_cube_that_was_written_is_read_and_a_broken_one_names_its_line()
    {
        var text = CubeLut.Write("Low tide", 3, (red, green, blue) => (red, green, blue));

        Assert.Equal(("Low tide", 3), CubeLut.Read("# by hand\n" + text.Replace("\n", "\r\n", StringComparison.Ordinal)));
        Assert.Contains(
            "Line 3",
            Assert.Throws<FormatException>(() => CubeLut.Read("LUT_3D_SIZE 2\n0 0 0\n1 0\n")).Message,
            StringComparison.Ordinal
        );
        Assert.Contains(
            "27",
            Assert.Throws<FormatException>(() => CubeLut.Read("LUT_3D_SIZE 3\n0 0 0\n")).Message,
            StringComparison.Ordinal
        );
        Assert.Contains(
            "2 to 256",
            Assert.Throws<FormatException>(() => CubeLut.Read("LUT_3D_SIZE 9999\n")).Message,
            StringComparison.Ordinal
        );
    }

    internal static Run Sample()
    {
        var rate = new FrameRate(25);
        var timeline = new Timeline(
            "t",
            "T",
            Raster.Hd,
            rate,
            [
                new Passage(
                    "asked",
                    50,
                    [new Layer("c", [Effect.Of("title") with { Text = "it's: here" }, Effect.Of("blur", ("radius", 3.5))])],
                    []
                ),
            ]
        );
        var machine = new Machine(
            "test",
            "Test",
            MachineKind.Real,
            "",
            new Processor("p", 2, 2, null, null),
            [],
            [],
            new Memory(8, 1, null, null),
            [],
            null,
            null
        );
        var header = new RunHeader(
            timeline, machine, new PlaybackSettings(), new Conditions("player", null, [0, 1], null, true, null),
            new Dictionary<string, string> { ["c"] = "abc" }, DateTimeOffset.UnixEpoch);
        var frames = Enumerable.Range(0, 50).Select(n => new FrameRecord(
            n,
            rate.StartOf(n),
            rate.StartOf(n),
            rate.StartOf(n),
            FrameStatus.OnTime,
            DropReason.None,
            default,
            default,
            default,
            default,
            1
        ))
        .ToList();
        return new Run(header, RunEnding.Finished, TimeSpan.Zero, frames, [], []);
    }
}
