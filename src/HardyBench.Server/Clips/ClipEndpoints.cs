using HardyBench.Core.Footage;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Clips;

/// <summary>A clip as the page shows it; measured where it is made, as asked for where not.</summary>
public sealed record ClipView(
    string Id, string Title, bool Made, string Encoding, string Raster, string Rate, int GopLength, double MegabitsPerSecond,
    int FrameCount, double Seconds, string? Sha256)
{
    public static ClipView Of(Clip clip) => new(
        clip.Id, clip.Title, clip.Sha256 is not null, clip.Format.Encoding, clip.Format.Raster.ToString(), clip.Format.Rate.ToString(),
        clip.Format.GopLength, clip.Format.DataRate.MegabitsPerSecond, clip.FrameCount,
        clip.Format.Rate.StartOf(clip.FrameCount).TotalSeconds, clip.Sha256);
}

internal static class ClipEndpoints
{
    public static void MapClips(this IEndpointRouteBuilder routes)
    {
        var clips = routes.MapGroup("/api/clips").WithTags("Footage");
        clips.MapGet("/", Ok<ClipView[]> (Bench bench) => TypedResults.Ok(bench.Clips.Clips.Values.Select(ClipView.Of).ToArray()))
            .WithName("listClips");
        clips.MapGet("/making", Ok<MakingView> (ClipDesk desk) => TypedResults.Ok(desk.Now)).WithName("making");
        clips.MapPost("/making", Accepted<MakingView> (ClipDesk desk) =>
        {
            desk.Start(null);
            return TypedResults.Accepted((string?)null, desk.Now);
        }).WithName("makeClips");
        clips.MapDelete("/making", NoContent (ClipDesk desk) =>
        {
            desk.Cancel();
            return TypedResults.NoContent();
        }).WithName("cancelMaking");
    }
}
