using HardyBench.Server.Plays;
using HardyBench.Formats.PlayerProtocol;
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
/// <param name="Confinement">What was in force when a player started last; null before the first.</param>
/// <param name="StorageProblem">Why what has to be saved waits, or null.</param>
/// <param name="DamagedRuns">Runs that were found damaged at the start.</param>
public sealed record HealthView(
    bool QueueLives, int Waiting, long? Playing, IReadOnlyList<UnreadableTimeline> Unreadable, IReadOnlyList<UnreadableRun> DamagedRuns,
    string? StorageProblem, ConfinementView? Confinement);

/// <summary>What keeps the player from doing more than playing.</summary>
/// <param name="Landlock">The version of the kernel's file rules in force; 0 for none.</param>
/// <param name="ListedCallsOnly">Whether only the system calls of a list are left to it.</param>
/// <param name="OwnNetwork">Whether it has a network of its own, without any interface, and a bounded folder.</param>
public sealed record ConfinementView(int Landlock, bool ListedCallsOnly, bool OwnNetwork)
{
    public static ConfinementView Of(PlayerGreeting greeting) =>
        new(greeting.RulesVersion, greeting.StaysAlone, greeting.IsApart);
}

internal static class HealthEndpoints
{
    public static void MapHealth(this IEndpointRouteBuilder routes) => routes
        .MapGet("/api/health", async Task<Results<Ok<HealthView>, JsonHttpResult<HealthView>>> (PlayDesk desk, Bench bench) =>
        {
            var queue = desk.Queue;
            var view = new HealthView(queue.Lives, queue.Waiting, queue.Playing, await bench.Timelines.UnreadableAsync(), bench.Unreadable,
                bench.Storage.Problem,
                bench.Players.Greeting is { } greeting ? ConfinementView.Of(greeting) : null);
            return view is { QueueLives: true, StorageProblem: null }
                ? TypedResults.Ok(view)
                : TypedResults.Json(view, statusCode: StatusCodes.Status503ServiceUnavailable);
        })
        .WithTags("Health").WithName("health");
}
