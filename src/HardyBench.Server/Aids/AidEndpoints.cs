using HardyBench.Server.Live;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Aids;

internal static class AidEndpoints
{
    public static void MapAids(this IEndpointRouteBuilder routes)
    {
        var renders = routes.MapGroup("/api/timelines/{id}/renders").WithTags("Aids");
        routes.MapGet("/api/rendering", Ok<CreationView> (AidDesk desk) => TypedResults.Ok(desk.Now)).WithTags("Aids").WithName("rendering");
        renders
            .MapGet(
                "/",
                async Task<Ok<IReadOnlyList<RenderView>>> (string id, AidDesk desk) => TypedResults.Ok(await desk.RendersAsync(id))
            )
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("renders");
        renders.MapPost("/", async Task<Accepted<CreationView>> (string id, AidDesk desk) =>
                TypedResults.Accepted((string?)null, await desk.StartAsync(id)))
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("makeRenders");
    }
}
