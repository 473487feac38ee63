using System.Text.Json;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Exports;
using HardyBench.Core.Playback.Subjects;
using HardyBench.Core.Trials.Kinds;
using HardyBench.Formats.Json;
using HardyBench.Formats.Runs;

namespace HardyBench.Formats.Tests;

/// <summary>Documents as earlier versions stored them, which stay readable. They are kept as they were written.</summary>
public sealed class FormerShapesTests
{
    [Theory]
    [InlineData("play", "59faa896b26f2c759bce4acf79fa057333a8937fd930ef45575529f59f84f7cf")]
    [InlineData("scrub", "9c4c6c782030837e1133e4820d7f38b0c7ec20b8408b2475fd76dae2e161c8aa")]
    [InlineData("export", "6394512639b9d22ab7fadd94f58c50a5f7e59451da5cb9d5b21ca065141af360")]
    public void A_header_of_the_first_version_is_read_with_its_subject_and_keeps_its_digest(string name, string digest)
    {
        var header = Read(Stored($"header-1-{name}"));

        Assert.Equal(
            name switch { "export" => typeof(Export), "scrub" => typeof(ByHand), _ => typeof(PlayedThrough) }, header.Subject.GetType());
        Assert.Equal((name == "scrub", "Touring night", 8), (header.IsByHand, header.Timeline.Title, header.Timeline.Passages.Count));
        Assert.Equal(digest, ConditionsDigest.Of(header));
        var again = Read(JsonSerializer.Serialize(header, BenchJson.Options));
        Assert.Equal((header.Subject.GetType(), digest), (again.Subject.GetType(), ConditionsDigest.Of(again)));
    }

    [Fact]
    public void An_export_of_the_first_version_is_written_as_it_was() =>
        Assert.Equal(new Export(ExportFormat.Hevc, EncoderPlace.MediaEngine), Read(Stored("header-1-export")).Subject);

    [Fact]
    public void A_real_machine_of_an_earlier_version_was_this_one()
    {
        Assert.Equal(MachineKind.Real, JsonSerializer.Deserialize<MachineKind>("\"this\"", BenchJson.Options));
        Assert.Equal("\"real\"", JsonSerializer.Serialize(MachineKind.Real, BenchJson.Options));
        Assert.Throws<JsonException>(() => JsonSerializer.Deserialize<MachineKind>("\"that\"", BenchJson.Options));
        Assert.Throws<JsonException>(() => JsonSerializer.Deserialize<MachineKind>("0", BenchJson.Options));
    }

    public static TheoryData<string, Trial> Trials => new()
    {
        { "export", new ExportTrial(1) },
        { "scrub", new ScrubTrial() },
        { "soak", new SoakTrial(0.2) },
        { "start-lag", new StartLagTrial(2) },
        { "compare", new CompareTrial(2, new PlaybackSettings(PreviewScale.Half)) },
        { "repeat", new RepeatTrial(3) },
    };

    [Theory]
    [MemberData(nameof(Trials))]
    public void A_trial_of_the_first_version_is_read_with_the_parameters_of_its_kind(string name, Trial trial)
    {
        var asked = FormerShapes.OfTrial(Stored($"trial-1-{name}"));

        Assert.Equal(trial, asked["trial"].Deserialize<Trial>(BenchJson.Options));
        Assert.Equal("curlew-desk", (string?)asked["machineId"]);
    }

    [Theory]
    [InlineData("7")]
    [InlineData("{\"settings\":{},\"settings\":{}}")]
    [InlineData("{")]
    public void What_is_no_document_is_refused_as_damaged(string text)
    {
        Assert.ThrowsAny<JsonException>(() => FormerShapes.OfHeader(text));
        Assert.ThrowsAny<JsonException>(() => FormerShapes.OfTrial(text));
    }

    /// <summary>A trial or a subject without its kind cannot be told from damage.</summary>
    [Theory]
    [InlineData("{}")]
    [InlineData("{\"kind\":\"juggle\"}")]
    [InlineData("{\"times\":3}")]
    public void What_lacks_its_kind_is_refused_as_damaged(string text)
    {
        Assert.ThrowsAny<JsonException>(() => JsonSerializer.Deserialize<Trial>(text, BenchJson.Options));
        Assert.ThrowsAny<JsonException>(() => JsonSerializer.Deserialize<Subject>(text, BenchJson.Options));
    }

    private static RunHeader Read(string text) => FormerShapes.OfHeader(text).Deserialize<RunHeader>(BenchJson.Options)!;

    private static string Stored(string name) =>
        File.ReadAllText(Repository.PathOf("tests", "HardyBench.Formats.Tests", "Former", $"{name}.json"));
}
