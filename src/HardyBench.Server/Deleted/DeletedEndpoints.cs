using HardyBench.Server.Live;
using HardyBench.Store;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Deleted;

/// <summary>Something that was deleted and can still be restored.</summary>
/// <param name="Kind">"clip", "run", "timeline", "machine", "brief", "part" or "editing program".</param>
/// <param name="RemovedOn">When it is removed for good.</param>
public sealed record DeletedView(string Kind, string Id, string Name, DateTimeOffset DeletedAt, DateTimeOffset RemovedOn)
{
    public static DeletedView Of(DeletedThing thing) =>
        new(thing.Kind, thing.Id, thing.Name, thing.DeletedAt, thing.DeletedAt + DeletedStore.RestorableFor);
}

/// <summary>Something to be restored.</summary>
public sealed record RestoreRequest(string Kind, string Id);

internal static class DeletedEndpoints
{
    public static void MapDeleted(this IEndpointRouteBuilder routes)
    {
        var deleted = routes.MapGroup("/api/deleted").WithTags("Deleted");
        deleted.MapGet("/", async Task<Ok<DeletedView[]>> (Bench bench) =>
                TypedResults.Ok((await bench.Deleted.ListAsync()).Select(DeletedView.Of).ToArray()))
            .WithName("listDeleted");
        deleted.MapPost("/restore", async Task<NoContent> (RestoreRequest wanted, Bench bench, LiveFeed live) =>
            {
                await bench.Deleted.RestoreAsync(wanted.Kind, wanted.Id);
                _ = live.Tell(page => page.RunsChanged());
                return TypedResults.NoContent();
            })
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("restoreDeleted");
    }
}
