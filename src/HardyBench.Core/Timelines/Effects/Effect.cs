using System.Text.Json.Serialization;

namespace HardyBench.Core.Timelines.Effects;

/// <summary>One treatment of a picture: which one, and its settings. Settings left out have the catalogue's defaults.</summary>
/// <param name="Id">As in <see cref="EffectCatalogue"/>.</param>
/// <param name="Text">Words of a title, or the name of a look; null where the kind has none.</param>
public sealed record Effect(string Id, IReadOnlyDictionary<string, double> Settings, string? Text = null)
{
    /// <summary>It stays in its place with its settings and does nothing.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool IsOff { get; init; }

    /// <summary>An effect with some of its settings.</summary>
    public static Effect Of(string id, params (string Name, double Value)[] settings) =>
        new(id, settings.ToDictionary(setting => setting.Name, setting => setting.Value));

    /// <summary>The value of a setting, the catalogue's default where it is left out.</summary>
    /// <exception cref="KeyNotFoundException">The kind has no such setting.</exception>
    public double this[string name] => Settings.TryGetValue(name, out var value)
        ? value
        : (EffectCatalogue.Find(Id)?.Settings.FirstOrDefault(setting => setting.Name == name)
            ?? throw new KeyNotFoundException($"'{Id}' has no setting '{name}'.")).Default;

    /// <summary>What the sheet calls it.</summary>
    public string Label => EffectCatalogue.Find(Id)?.Label ?? Id;

    public bool Equals(Effect? other) => other is not null && Id == other.Id && IsOff == other.IsOff && Text == other.Text
        && Settings.Count == other.Settings.Count
        && Settings.All(setting => other.Settings.TryGetValue(setting.Key, out var value) && value.Equals(setting.Value));

    public override int GetHashCode() => HashCode.Combine(Id, Text, Settings.Count);
}
