using HardyBench.Server.Plays;
using HardyBench.Store;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Health;

/// <summary>Whether the server does its work.</summary>
/// <param name="QueueLives">Whether trials that wait will be played.</param>
/// <param name="Waiting">How many wait.</param>
/// <param name="Playing">The trial that plays, or null.</param>
/// <param name="Unreadable">Timelines that are kept and cannot be read or worked with.</param>
/// <param name="StorageProblem">Why what has to be saved waits, or null.</param>
/// <param name="DamagedRuns">Runs that were found damaged at the start.</param>
public sealed record HealthView(bool QueueLives, int Waiting, long? Playing, IReadOnlyList<UnreadableTimeline> Unreadable, IReadOnlyList<UnreadableRun> DamagedRuns,
    string? StorageProblem);

internal static class HealthEndpoints
{
    public static void MapHealth(this IEndpointRouteBuilder routes) => routes
        .MapGet("/api/health", async Task<Results<Ok<HealthView>, JsonHttpResult<HealthView>>> (PlayDesk desk, Bench bench) =>
        {
            var queue = desk.Queue;
            var view = new HealthView(queue.Lives, queue.Waiting, queue.Playing, await bench.Timelines.UnreadableAsync(), bench.Unreadable,
                bench.Storage.Problem);
            return view is { QueueLives: true, StorageProblem: null } ? TypedResults.Ok(view) : TypedResults.Json(view, statusCode: StatusCodes.Status503ServiceUnavailable);
        })
        .WithTags("Health").WithName("health");
}
