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
                var names = await bench.Machines.NamesAsync();
                return TypedResults.Ok(
                    (await bench.Trials.ListAsync()).Select(trial => TrialLineView.Of(trial, names, bench.Machines.Host)).ToArray());
            })
            .WithName("listTrials");
        trials.MapGet("/{id:long}", async Task<Ok<TrialView>> (long id, Bench bench) =>
                TypedResults.Ok(TrialView.Of(
                    await bench.Trials.ReportAsync(id), await bench.Machines.NamesAsync(), bench.Machines.Host)))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("trial");
    }
}
