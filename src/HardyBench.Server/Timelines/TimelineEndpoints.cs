using HardyBench.Core.Playback;
using HardyBench.Formats.Advice;
using HardyBench.Formats.Timelines;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Timelines;

internal static class TimelineEndpoints
{
    public static void MapTimelines(this IEndpointRouteBuilder routes)
    {
        var timelines = routes.MapGroup("/api/timelines").WithTags("Timelines");
        timelines.MapGet("/", async Task<Ok<TimelineView[]>> (Bench bench) =>
            TypedResults.Ok((await bench.TimelinesAsync()).Select(timeline => TimelineView.Of(timeline, bench.Clips.Clips)).ToArray()))
            .WithName("listTimelines");
        timelines.MapGet("/{id}/sheet", SheetAsync).ProducesProblem(StatusCodes.Status404NotFound).WithName("sheet");
        timelines.MapGet("/{id}/advice", async Task<Ok<PickDocument>> (string id, Bench bench) =>
                TypedResults.Ok(PickDocument.Of(id, await bench.AdviseAsync(id))))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("advice");
    }

    /// <summary>The newest run of each machine at a preview scale.</summary>
    private static async Task<Ok<SheetView>> SheetAsync(string id, Bench bench, string scale = "full")
    {
        var wanted = Enum.TryParse<PreviewScale>(scale, ignoreCase: true, out var known) && Enum.IsDefined(known)
            ? known
            : throw new UnknownThingException("preview scale", scale, Enum.GetNames<PreviewScale>().Select(name => name.ToLowerInvariant()));
        var timeline = await bench.TimelineAsync(id);
        var digest = TimelineJson.Digest(timeline);
        var columns = new List<ColumnView>();
        foreach (var machine in await bench.MachinesAsync())
        {
            columns.Add(ColumnView.Of(machine, await bench.Runs.LatestAsync(digest, machine.Id, wanted, bareOnly: false)));
        }

        return TypedResults.Ok(new SheetView(TimelineView.Of(timeline, bench.Clips.Clips), columns));
    }
}
