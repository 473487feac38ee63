using HardyBench.Core.Footage;
using HardyBench.Media.Clips;
using HardyBench.Server.Live;
using HardyBench.Server.Plays;
using HardyBench.Workbench;
using HardyBench.Workbench.Clips;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Clips;

/// <summary>A clip as the page shows it; measured where it is made, as asked for where not.</summary>
/// <param name="Family">Of its recipe; null for a clip that somebody brought.</param>
/// <param name="CanBeDeleted">Whether it was imported here.</param>
/// <param name="UsedBy">Titles of the timelines that play it.</param>
/// <param name="Asked">What its recipe asks of the encoder, in words; null without a recipe.</param>
public sealed record ClipView(
    string Id,
    string Title,
    bool Made,
    string? Family,
    string Encoding,
    string Raster,
    string Rate,
    int GopLength,
    double MegabitsPerSecond,
    int FrameCount, double Seconds, string? Sha256, string? Profile, string? Asked, IReadOnlyList<string> Caveats,
    bool CanBeDeleted, IReadOnlyList<string> UsedBy)
{
    public static ClipView Of(Clip clip, ClipRecipe? recipe, bool canBeDeleted, IEnumerable<string> usedBy) => new(
        clip.Id,
        clip.Title,
        clip.Sha256 is not null,
        recipe?.Family,
        clip.Format.Encoding,
        clip.Format.Raster.ToString(),
        clip.Format.Rate.ToString(),
        clip.Format.GopLength, clip.Format.DataRate.MegabitsPerSecond, clip.FrameCount,
        clip.Format.Rate.StartOf(clip.FrameCount).TotalSeconds, clip.Sha256, clip.Profile,
        recipe is null ? null : $"GOP {recipe.GopLength}, {recipe.Asked.DataRate}", clip.Caveats ?? [], canBeDeleted, [.. usedBy]);
}

/// <summary>All footage.</summary>
/// <param name="Refused">Files that could not be taken, with the reason.</param>
/// <param name="Watched">The folder that is watched for clips, or null.</param>
public sealed record FootageView(IReadOnlyList<ClipView> Clips, IReadOnlyList<RefusedFile> Refused, string? Watched);

/// <summary>Which recipes are wanted; none for those of the demo.</summary>
public sealed record CreationRequest(IReadOnlyList<string>? Ids = null);

internal static class ClipEndpoints
{
    public static void MapClips(this IEndpointRouteBuilder routes)
    {
        var clips = routes.MapGroup("/api/clips").WithTags("Footage");
        clips.MapGet("/", async Task<Ok<FootageView>> (Bench bench) => TypedResults.Ok(await FootageAsync(bench))).WithName("listClips");
        clips.MapPost("/look", async Task<Ok<FootageView>> (Bench bench, ThisMachineInUse inUse, CancellationToken stop) =>
            {
                // Inspecting files loads the machine: while something is measured here, the answer is what was known before.
                using var turn = inUse.TryTake("clips are being inspected");
                if (turn is not null)
                {
                    await bench.Clips.Own!.LookAsync(stop);
                }

                return TypedResults.Ok(await FootageAsync(bench));
            })
            .WithName("lookForClips");
        clips
            .MapGet(
                "/{id}/facts",
                Ok<ClipFacts> (string id, Bench bench) => TypedResults.Ok(ClipFacts.Of(bench.Clips.Clips.Known(id).Format))
            )
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("clipFacts");
        clips.MapDelete("/{id}", NoContent (string id, Bench bench) =>
            {
                bench.Clips.Own!.Delete(bench.Clips.Clips.Known(id).Id);
                return TypedResults.NoContent();
            })
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("deleteClip");
        clips.MapPost("/{id}/back", NoContent (string id, Bench bench) =>
            {
                bench.Clips.Own!.Restore(id);
                return TypedResults.NoContent();
            })
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity).WithName("bringClipBack");
        clips.MapGet("/making", Ok<CreationView> (ClipDesk desk) => TypedResults.Ok(desk.Now)).WithName("making");
        clips.MapPost("/making", Accepted<CreationView> (CreationRequest wanted, ClipDesk desk) =>
        {
            _ = desk.Start(wanted.Ids);
            return TypedResults.Accepted((string?)null, desk.Now);
        }).WithName("makeClips");
        clips.MapDelete("/making", NoContent (ClipDesk desk) =>
        {
            desk.Cancel();
            return TypedResults.NoContent();
        }).WithName("cancelMaking");
        MapPacks(routes.MapGroup("/api/packs").WithTags("Footage"));
    }

    private static async Task<FootageView> FootageAsync(Bench bench)
    {
        var recipes = bench.Clips.Recipes.ToDictionary(recipe => recipe.Id);
        var users = (await bench.Timelines.AllAsync())
            .SelectMany(timeline => timeline.ClipIds.Select(id => (id, timeline.Title)))
            .ToLookup(use => use.id, use => use.Title);
        return new FootageView(
            [
                .. bench.Clips.Clips.Values.Select(clip =>
                    ClipView.Of(clip, recipes.GetValueOrDefault(clip.Id), bench.Clips.Own!.IsImported(clip.Id), users[clip.Id])
                ),
            ],
            bench.Clips.Own!.Refused, bench.Clips.Own.Watched);
    }

    private static void MapPacks(RouteGroupBuilder packs)
    {
        packs
            .MapGet(
                "/{timelineId}.zip",
                async Task<FileStreamHttpResult> (string timelineId, Bench bench, ThisMachineInUse inUse, CancellationToken stop) =>
        {
            using var turn = await inUse.TakeAsync("a pack is being read or written", stop);
            var file = Passing(bench);
            try
            {
                await bench.Packs.ExportAsync([timelineId], file, stop);
                file.Position = 0;
                return TypedResults.File(file, "application/zip", $"{timelineId}.zip");
            }
            catch
            {
                await file.DisposeAsync();
                throw;
            }
        }).ProducesProblem(StatusCodes.Status422UnprocessableEntity).WithName("packTimeline");
        packs
            .MapPost(
                "/",
                async Task<Ok<IReadOnlyList<string>>> (HttpRequest request, Bench bench, ThisMachineInUse inUse, CancellationToken stop) =>
            {
                request.HttpContext.Features.Get<IHttpMaxRequestBodySizeFeature>()?.MaxRequestBodySize = null;
                await using var file = Passing(bench);
                await UploadRoom.CopyAsync(request.Body, file, bench.Folder, () => Uploads.Promised(bench), stop);
                file.Position = 0;
                using var turn = await inUse.TakeAsync("a pack is being read or written", stop);
                return TypedResults.Ok(await bench.Packs.ImportAsync(file, stop));
            })
            .Accepts<Stream>("application/octet-stream").ProducesProblem(StatusCodes.Status422UnprocessableEntity).WithName("takePackIn");
    }

    /// <summary>A file that is gone as soon as it is closed.</summary>
    private static FileStream Passing(Bench bench) =>
        new(
            Path.Combine(bench.Folder.Incoming, Path.GetRandomFileName()),
            new FileStreamOptions
    {
        Mode = FileMode.CreateNew, Access = FileAccess.ReadWrite, Options = FileOptions.DeleteOnClose | FileOptions.Asynchronous,
    });
}
