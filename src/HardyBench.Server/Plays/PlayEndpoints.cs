using HardyBench.Core.Machines;
using HardyBench.Formats.Runs;
using HardyBench.Server.Live;
using HardyBench.Server.Runs;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Plays;

internal static class PlayEndpoints
{
    public static void MapPlays(this IEndpointRouteBuilder routes)
    {
        var play = routes.MapGroup("/api/play").WithTags("Play");
        play.MapGet("/", Results<Ok<PlayView>, NoContent> (PlayDesk desk) =>
            desk.Now is { } now ? TypedResults.Ok(now) : TypedResults.NoContent()).WithName("play");
        play.MapPost("/", async Task<Accepted<PlayView>> (PlayRequest request, PlayDesk desk) =>
                TypedResults.Accepted((string?)null, await desk.AskAsync(request)))
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("startPlay");
        play.MapPost("/look", async Task<Ok<PlayPreview>> (PlayRequest request, Bench bench) =>
                TypedResults.Ok(await PlayPreview.OfAsync(request, bench)))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("lookAtPlay");
        play.MapGet(
                "/devices",
                async Task<Ok<IReadOnlyList<Device>>> (Bench bench, CancellationToken stop) =>
                    TypedResults.Ok(await bench.Players.DevicesAsync(stop))
            )
            .ProducesProblem(StatusCodes.Status503ServiceUnavailable).WithName("devices");
        play.MapDelete("/", async Task<NoContent> (PlayDesk desk) =>
        {
            await desk.StopAsync();
            return TypedResults.NoContent();
        }).WithName("stopPlay");
        play.MapDelete("/waiting/{trialId:long}", async Task<NoContent> (long trialId, PlayDesk desk) =>
        {
            await desk.WithdrawAsync(trialId);
            return TypedResults.NoContent();
        }).WithName("withdrawPlay");
        routes.MapPost("/api/runs/{id:long}/marks", async Task<Ok<MarkRow>> (long id, MarkRequest request, Bench bench, PlayDesk desk) =>
                TypedResults.Ok(MarkRow.Of(await bench.Plays.MarkAsync(
                    id, request.At(ago => desk.MomentOf(id, ago)), request.Frame, request.Kind, request.Text))))
            .ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status422UnprocessableEntity).WithName("addMark");
        routes.MapPost("/api/runs/{id:long}/again", async Task<Accepted<PlayView>> (long id, int? passage, PlayDesk desk) =>
                TypedResults.Accepted((string?)null, await desk.AskAgainAsync(id, passage - 1)))
            .ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithTags("Runs").WithName("playAgain");
    }
}
