using System.Text;
using HardyBench.Core;
using HardyBench.Core.Findings;
using HardyBench.Formats.Json;
using HardyBench.Formats.Runs;
using HardyBench.Store;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Runs;

internal static class RunEndpoints
{
    /// <summary>Runs that one answer lists where nothing else is asked, and the most.</summary>
    private const int FewRuns = 100, MaxRuns = 1000;

    public static void MapRuns(this IEndpointRouteBuilder routes)
    {
        var runs = routes.MapGroup("/api/runs").WithTags("Runs");
        runs.MapGet("/", async Task<Ok<IReadOnlyList<RunLineView>>> (Bench bench, int skip = 0, int take = FewRuns) =>
                TypedResults.Ok((await RunPageView.OfAsync(
                    bench, new RunQuery(Skip: skip, Take: Math.Min(take, MaxRuns)))).Runs))
            .WithName("listRuns").WithDescription($"The newest first, {FewRuns} unless asked otherwise and {MaxRuns} at most.");
        runs.MapGet(
                "/page",
                async Task<Ok<RunPageView>> (
                        Bench bench, string words = "", string by = "number", bool rising = false, int skip = 0, int take = 100) =>
                    TypedResults.Ok(await RunPageView.OfAsync(bench, new RunQuery(words, OrderOf(by), rising, skip, take))))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("pageOfRuns");
        runs.MapGet("/{id:long}", async Task<Ok<RunDocument>> (long id, Bench bench) =>
                TypedResults.Ok(Document(await bench.FindRunAsync(id))))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("run");
        runs.MapGet("/{id:long}/passages/{number:int}", async Task<Ok<PassageDetail>> (long id, int number, Bench bench) =>
                TypedResults.Ok(PassageDetail.Of(await bench.FindRunAsync(id), number)
                    ?? throw new UnknownThingException("passage", $"{number}", [])))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("passage");
        runs.MapGet("/{id:long}/run.json", async Task<ContentHttpResult> (long id, Bench bench) =>
            {
                var stored = await bench.FindRunAsync(id);
                return TypedResults.Text(
                    RunJson.Write(id, stored.Run, RunFindings.Of(stored.Run), stored.Marks, stored.Place?.TrialId),
                    "application/json"
                );
            })
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("runAsJson");
        runs.MapGet(
                "/{id:long}/{what:regex(^(frames|loads|lags)$)}.csv",
                async Task<FileContentHttpResult> (long id, string what, Bench bench) =>
            {
                var stored = await bench.FindRunAsync(id);
                var text = what switch
                {
                    "loads" => RunCsv.Loads(stored.Run),
                    "lags" => RunCsv.Lags(stored.Run),
                    _ => RunCsv.Frames(stored.Run, stored.Marks),
                };
                return TypedResults.File(Encoding.UTF8.GetBytes(text), "text/csv", $"run-{id}-{what}.csv");
            })
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("runAsCsv");
        runs.MapGet("/{id:long}/trace.json", async Task<FileContentHttpResult> (long id, Bench bench) =>
            {
                var stored = await bench.FindRunAsync(id);
                return TypedResults.File(TraceEvents.Write(stored.Run, stored.Marks), "application/json", $"run-{id}-trace.json");
            })
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("runAsTrace");
        runs.MapPost("/deleted", async Task<Ok<int>> (RunIds asked, Bench bench) =>
                TypedResults.Ok(await bench.RunWriter.SetDeletedAsync(asked.Ids, asked.Deleted, DateTimeOffset.UtcNow)))
            .WithName("deleteRuns");
        runs.MapDelete("/{id:long}/marks/{mark:long}", async Task<NoContent> (long id, long mark, Bench bench) =>
            {
                await bench.RunWriter.UnmarkAsync(id, mark);
                return TypedResults.NoContent();
            })
            .WithName("removeMark");
        runs.MapGet("/{id:long}/frames.parquet", async Task<FileContentHttpResult> (long id, Bench bench) =>
            {
                var stored = await bench.FindRunAsync(id);
                return TypedResults.File(
                    await RunColumns.WriteAsync(stored.Run.Frames, stored.Run.Loads),
                    "application/vnd.apache.parquet",
                    $"run-{id}.parquet"
                );
            })
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("runAsParquet");
    }

    private static RunOrder OrderOf(string name) =>
        Enum.TryParse<RunOrder>(name, ignoreCase: true, out var order) && Enum.IsDefined(order) ? order
            : throw new UnknownThingException("order of runs", name, Enum.GetValues<RunOrder>().Select(BenchJson.Name));

    private static RunDocument Document(StoredRun stored) =>
        RunDocument.Of(stored.Id, stored.Run, RunFindings.Of(stored.Run), stored.Marks, stored.Place?.TrialId);
}
