using System.Text;
using HardyBench.Core.Wording;
using HardyBench.Formats.Comparing;
using HardyBench.Workbench;
using HardyBench.Workbench.Comparing;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Comparing;

internal static class CompareEndpoints
{
    public static void MapComparisons(this IEndpointRouteBuilder routes)
    {
        var compare = routes.MapGroup("/api/compare").WithTags("Comparisons");
        compare
            .MapGet(
                "/",
                async Task<Ok<ComparisonView>> (long[] run, Bench bench) =>
                    TypedResults.Ok(ComparisonView.Of(await bench.Comparisons.OfAsync(run)))
            )
            .ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status422UnprocessableEntity).WithName("compare");
        compare.MapGet("/table.csv", async Task<FileContentHttpResult> (long[] run, Bench bench) => TypedResults.File(
                Encoding.UTF8.GetBytes(ComparisonCsv.Write(Rows(await bench.Comparisons.OfAsync(run)))), "text/csv", "comparison.csv"))
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("compareAsTable");
        var grid = routes.MapGroup("/api/grid").WithTags("Comparisons");
        grid.MapGet(
                "/",
                async Task<Ok<GridView>> (string? timeline, Bench bench) => TypedResults.Ok(GridView.Of(await GridAsync(bench, timeline)))
            )
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("grid");
        grid.MapGet("/table.csv", async Task<FileContentHttpResult> (string? timeline, Bench bench) => TypedResults.File(
                Encoding.UTF8.GetBytes(GridCsv.Write(GridView.Lines(await GridAsync(bench, timeline)))), "text/csv", "grid.csv"))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("gridAsTable");
        grid.MapGet("/families", async Task<Ok<FamilyView[]>> (string timeline, Bench bench) =>
                TypedResults.Ok((await bench.Grids.FamiliesAsync(timeline)).Select(FamilyView.Of).ToArray()))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("families");
    }

    private static Task<Grid> GridAsync(Bench bench, string? timeline) =>
        timeline is null ? bench.Grids.ByTimelineAsync() : bench.Grids.ByPassageAsync(timeline);

    /// <summary>A line a passage and side.</summary>
    private static IEnumerable<ComparisonRow> Rows(Comparison comparison) =>
        from passage in Enumerable.Range(0, comparison.Sides[0].Passages.Count)
        from side in comparison.Sides
        let found = side.Passages[passage]
        let beside = side.Beside?.Passages[passage]
        select new ComparisonRow(
            passage + 1,
            comparison.Sides[0].Header.Timeline.Passages[passage].Question,
            side.Judged.Id,
            side.Header.Machine.Name,
            side.Repeats.Count,
            found?.Verdict,
            found?.ShownRate,
            found?.SteadyDrops,
            found?.Limiter,
            found?.Headroom,
            beside?.Difference?.Mean,
            beside?.Difference?.Half,
            beside?.Ratio,
            beside is null ? string.Empty : ComparisonWords.Of(beside));
}
