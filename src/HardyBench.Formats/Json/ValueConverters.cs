using System.Text.Json;
using System.Text.Json.Serialization;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;

namespace HardyBench.Formats.Json;

/// <summary>A raster as {"width": 1920, "height": 1080}.</summary>
internal sealed class RasterConverter : JsonConverter<Raster>
{
    public override Raster Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        var (width, height) = Pair.Read(ref reader, "width", "height");
        return Pair.Checked(() => new Raster(width, height));
    }

    public override void Write(Utf8JsonWriter writer, Raster value, JsonSerializerOptions options) =>
        Pair.Write(writer, ("width", value.Width), ("height", value.Height));
}

/// <summary>A rate as {"numerator": 24000, "denominator": 1001}.</summary>
internal sealed class FrameRateConverter : JsonConverter<FrameRate>
{
    public override FrameRate Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        var (numerator, denominator) = Pair.Read(ref reader, "numerator", "denominator");
        return Pair.Checked(() => new FrameRate(numerator, denominator));
    }

    public override void Write(Utf8JsonWriter writer, FrameRate value, JsonSerializerOptions options) =>
        Pair.Write(writer, ("numerator", value.Numerator), ("denominator", value.Denominator));
}

/// <summary>A kind of machine as a word. Until 2026-12 a real machine was "this".</summary>
internal sealed class MachineKindConverter : JsonConverter<MachineKind>
{
    public override MachineKind Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        reader.TokenType != JsonTokenType.String ? throw new JsonException("A kind of machine is a word.")
        : reader.GetString() switch
        {
            "real" or "this" => MachineKind.Real,
            "standIn" => MachineKind.StandIn,
            var other => throw new JsonException($"'{other}' is no kind of machine; known: real and standIn."),
        };

    public override void Write(Utf8JsonWriter writer, MachineKind value, JsonSerializerOptions options) =>
        writer.WriteStringValue(BenchJson.Name(value));
}

/// <summary>An object of two whole numbers.</summary>
file static class Pair
{
    public static (int First, int Second) Read(ref Utf8JsonReader reader, string first, string second)
    {
        using var document = JsonDocument.ParseValue(ref reader);
        var root = document.RootElement;
        return root.ValueKind == JsonValueKind.Object
            && root.TryGetProperty(first, out var a) && a.TryGetInt32(out var one)
            && root.TryGetProperty(second, out var b) && b.TryGetInt32(out var two)
                ? (one, two)
                : throw new JsonException($"Expected whole numbers '{first}' and '{second}'.");
    }

    /// <summary>A value out of range is the text's fault.</summary>
    public static T Checked<T>(Func<T> make)
    {
        try
        {
            return make();
        }
        catch (ArgumentOutOfRangeException wrong)
        {
            throw new JsonException(wrong.Message, wrong);
        }
    }

    public static void Write(Utf8JsonWriter writer, (string Name, int Value) first, (string Name, int Value) second)
    {
        writer.WriteStartObject();
        writer.WriteNumber(first.Name, first.Value);
        writer.WriteNumber(second.Name, second.Value);
        writer.WriteEndObject();
    }
}
