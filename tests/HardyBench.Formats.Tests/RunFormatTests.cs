using System.Text.Json;
using CsCheck;
using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Formats.Luts;
using HardyBench.Formats.Runs;
using HardyBench.Formats.Timelines;

namespace HardyBench.Formats.Tests;

public sealed class RunFormatTests
{
    private static readonly Gen<TimeSpan> Times = Gen.Long[0, 36_000_000_000].Select(ticks => new TimeSpan(ticks));

    private static readonly Gen<FrameRecord> Frames = Gen.Select(
        Gen.Int[0, 1_000_000], Times, Times, Gen.Enum<FrameStatus>(), Gen.Enum<DropReason>(), Gen.Int[0, 12],
        (frame, start, other, status, reason, queue) => new FrameRecord(
            frame, start, queue % 2 == 0 ? null : other, queue % 3 == 0 ? null : other, status, reason, other, start, other, start, queue));

    private static readonly Gen<LoadReading> Loads = Gen.Select(
        Times, Gen.Enum<LoadKind>(), Gen.Short[0, 63], Gen.Float[0, 1e12f], (at, kind, index, value) => new LoadReading(at, kind, index, value));

    [Fact]
    public Task Frames_and_loads_come_back_from_parquet_as_they_went_in() =>
        Gen.Select(Frames.Array[0, 50], Loads.Array[0, 50]).SampleAsync(
            async (frames, loads) =>
            {
                var (framesBack, loadsBack) = await RunColumns.ReadAsync(await RunColumns.WriteAsync(frames, loads));
                Assert.Equal(frames, framesBack);
                Assert.Equal(loads, loadsBack);
            },
            iter: 30);

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
        foreach (var name in new[] { "number", "name", "slots", "onTime", "late", "startUpDrops", "steadyDrops", "shownRate", "longestFreezeMs", "verdict", "limiter" })
        {
            Assert.True(passage.TryGetProperty(name, out _), name);
        }

        Assert.Equal(("holds", 50), (passage.GetProperty("verdict").GetString(), passage.GetProperty("slots").GetInt32()));
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
        var lines = CubeLut.Write("swap", 2, (red, green, blue) => (blue * 2, green, red)).Split('\n', StringSplitOptions.RemoveEmptyEntries);

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
        Assert.Contains("Line 3", Assert.Throws<FormatException>(() => CubeLut.Read("LUT_3D_SIZE 2\n0 0 0\n1 0\n")).Message, StringComparison.Ordinal);
        Assert.Contains("27", Assert.Throws<FormatException>(() => CubeLut.Read("LUT_3D_SIZE 3\n0 0 0\n")).Message, StringComparison.Ordinal);
        Assert.Contains("2 to 256", Assert.Throws<FormatException>(() => CubeLut.Read("LUT_3D_SIZE 9999\n")).Message, StringComparison.Ordinal);
    }

    private static Run Sample()
    {
        var rate = new FrameRate(25);
        var timeline = new Timeline("t", "T", Raster.Hd, rate, [new Passage("asked", 50, [new Layer("c", [Effect.Of("title") with { Text = "it's: here" }, Effect.Of("blur", ("radius", 3.5))])], [])]);
        var machine = new Machine("test", "Test", MachineKind.This, "", new Processor("p", 2, 2, null, null), null, null, new Memory(8, 1, null, null), null, null, null);
        var header = new RunHeader(
            timeline, machine, new PlaybackSettings(), new Conditions("player", null, [0, 1], null, true, null),
            new Dictionary<string, string> { ["c"] = "abc" }, DateTimeOffset.UnixEpoch);
        var frames = Enumerable.Range(0, 50).Select(n => new FrameRecord(
            n, rate.StartOf(n), rate.StartOf(n), rate.StartOf(n), FrameStatus.OnTime, DropReason.None, default, default, default, default, 1)).ToList();
        return new Run(header, RunEnding.Finished, TimeSpan.Zero, frames, [], []);
    }
}
