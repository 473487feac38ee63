using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Trials;

internal static class TrialEndpoints
{
    public static void MapTrials(this IEndpointRouteBuilder routes)
    {
        var trials = routes.MapGroup("/api/trials").WithTags("Trials");
        trials.MapGet("/", async Task<Ok<TrialLineView[]>> (Bench bench) =>
            {
                var machines = await bench.Machines.WithDeletedAsync();
                return TypedResults.Ok((await bench.Trials.ListAsync()).Select(trial => TrialLineView.Of(trial, machines)).ToArray());
            })
            .WithName("listTrials");
        trials.MapGet("/{id:long}", async Task<Ok<TrialView>> (long id, Bench bench) =>
                TypedResults.Ok(TrialView.Of(await bench.Trials.ReportAsync(id), await bench.Machines.WithDeletedAsync())))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("trial");
    }
}
