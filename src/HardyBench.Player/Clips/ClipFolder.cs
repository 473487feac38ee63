using System.Text.Json;
using HardyBench.Core.Footage;
using HardyBench.Formats.Json;
using HardyBench.Player.Native;
using HardyBench.Player.Playing;

namespace HardyBench.Player.Clips;

/// <summary>The folder of made clips. Beside each finished file lies a note of what was measured of it; a file without
/// its note is not finished and does not count.</summary>
public sealed class ClipFolder(string path, IReadOnlyList<ClipRecipe> recipes) : IClipFiles
{
    public string Path { get; } = path;

    public IReadOnlyList<ClipRecipe> Recipes => recipes;

    /// <summary>Every clip by id: measured where it is made, as asked for where it is not.</summary>
    public IReadOnlyDictionary<string, Clip> Clips =>
        recipes.ToDictionary(recipe => recipe.Id, recipe => Made(recipe) ?? AsAsked(recipe));

    /// <summary>Recipes whose clips are not there yet.</summary>
    public IReadOnlyList<ClipRecipe> Missing => [.. recipes.Where(recipe => Made(recipe) is null)];

    /// <inheritdoc />
    public string PathOf(Clip clip)
    {
        var recipe = recipes.FirstOrDefault(recipe => recipe.Id == clip.Id)
            ?? throw new MediaException($"The clip '{clip.Id}' has no recipe here.");
        var file = FileOf(recipe);
        return File.Exists(file)
            ? file
            : throw new MediaException($"The clip '{clip.Id}' is not made yet ({recipe.FileName} is missing). Make the clips first.");
    }

    public string FileOf(ClipRecipe recipe) => System.IO.Path.Combine(Path, recipe.FileName);

    /// <summary>Notes what was measured of a finished file; from then on the clip counts as made.</summary>
    public void Note(ClipRecipe recipe, Clip clip)
    {
        var note = NoteOf(recipe);
        File.WriteAllText(note + ".part", JsonSerializer.Serialize(clip, BenchJson.Options));
        File.Move(note + ".part", note, overwrite: true);
    }

    /// <summary>The clip of a recipe if it is made, else null.</summary>
    public Clip? Made(ClipRecipe recipe)
    {
        try
        {
            return File.Exists(FileOf(recipe)) && File.Exists(NoteOf(recipe))
                ? JsonSerializer.Deserialize<Clip>(File.ReadAllText(NoteOf(recipe)), BenchJson.Options)! with { Title = recipe.Title }
                : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static Clip AsAsked(ClipRecipe recipe) => new(recipe.Id, recipe.Title, recipe.Asked, recipe.FrameCount, null);

    private string NoteOf(ClipRecipe recipe) => FileOf(recipe) + ".json";
}
