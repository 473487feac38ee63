using System.Text.Json;
using HardyBench.Core.Footage;
using HardyBench.Formats.Files;
using HardyBench.Formats.Json;

namespace HardyBench.Media.Clips;

/// <summary>All clips: the folder of made ones, and those that people brought. Beside each made file lies a note of what
/// was measured of it; a file without its note is not finished and does not count.</summary>
/// <param name="own">Clips that people brought, or null for none.</param>
public sealed class ClipFolder(string path, IReadOnlyList<ClipRecipe> recipes, OwnClips? own = null) : IClipFiles
{
    public string Path { get; } = path;

    public IReadOnlyList<ClipRecipe> Recipes => recipes;

    public OwnClips? Own => own;

    /// <summary>Every clip by id: measured where there is a file, as asked for where there is only a recipe.</summary>
    public IReadOnlyDictionary<string, Clip> Clips =>
        recipes.Select(recipe => Made(recipe) ?? AsAsked(recipe)).Concat(own?.Clips.Values ?? [])
            .DistinctBy(clip => clip.Id).ToDictionary(clip => clip.Id);

    /// <summary>Recipes of these ids, or of the demo's, whose clips are not there yet.</summary>
    public IReadOnlyList<ClipRecipe> Missing(IReadOnlyList<string>? ids = null) =>
        [.. recipes.Where(recipe => (ids ?? StarterPack.DemoIds).Contains(recipe.Id) && Made(recipe) is null)];

    /// <inheritdoc />
    public string PathOf(Clip clip)
    {
        if (own?.FileOf(clip.Id) is { } brought)
        {
            return File.Exists(brought)
                ? brought
                : throw new MediaException($"The file of clip '{clip.Id}' is missing: {brought}. Restore the file, or relink the passage.");
        }

        var recipe = recipes.FirstOrDefault(recipe => recipe.Id == clip.Id)
            ?? throw new MediaException($"The clip '{clip.Id}' has no recipe here.");
        var file = FileOf(recipe);
        return File.Exists(file)
            ? file
            : throw new MediaException($"The clip '{clip.Id}' is not created yet ({recipe.FileName} is missing). Create the clips first.");
    }

    public string FileOf(ClipRecipe recipe) => System.IO.Path.Combine(Path, recipe.FileName);

    /// <summary>Notes what was measured of a finished file; from then on the clip counts as made.</summary>
    public void Note(ClipRecipe recipe, Clip clip) => WholeFile.Write(NoteOf(recipe), JsonSerializer.Serialize(clip, BenchJson.Options));

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
