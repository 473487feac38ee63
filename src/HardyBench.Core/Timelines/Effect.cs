using System.Text.Json.Serialization;

namespace HardyBench.Core.Timelines;

/// <summary>One treatment of a picture, with its settings.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "effect")]
[JsonDerivedType(typeof(PrimaryGrade), "primary-grade")]
[JsonDerivedType(typeof(Lut), "lut")]
[JsonDerivedType(typeof(NoiseReduction), "noise-reduction")]
[JsonDerivedType(typeof(Placement), "placement")]
[JsonDerivedType(typeof(Title), "title")]
public abstract record Effect
{
    /// <summary>What the sheet calls it.</summary>
    [JsonIgnore]
    public abstract string Label { get; }
}

/// <summary>Gain per colour channel (1 leaves it), one gamma for all, and saturation (1 leaves it, 0 is grey).</summary>
public sealed record PrimaryGrade(
    double RedGain, double GreenGain, double BlueGain, double Gamma, double Saturation) : Effect
{
    public override string Label => "grade";
}

/// <summary>A three-dimensional look-up table.</summary>
/// <param name="Look">The name of a look that ships with the product.</param>
public sealed record Lut(string Look) : Effect
{
    public override string Label => "LUT";
}

/// <summary>Spatial and temporal noise reduction; each strength in 8-bit code values, 0 leaves the picture.</summary>
public sealed record NoiseReduction(double Spatial, double Temporal) : Effect
{
    public override string Label => "noise reduction";
}

/// <summary>Where a layer stands in the timeline's raster: its size as a share of the raster and the place of its
/// top left corner, each from 0 to 1.</summary>
public sealed record Placement(double Size, double Left, double Top) : Effect
{
    public override string Label => "placed";
}

/// <summary>Words over the picture.</summary>
public sealed record Title(string Words) : Effect
{
    public override string Label => "title";
}
