using System.Text.Json;
using HardyBench.Core;
using HardyBench.Core.Calibration;
using HardyBench.Formats.Json;
using HardyBench.Server.Live;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Calibration;

internal static class CalibrationEndpoints
{
    public static void MapCalibration(this IEndpointRouteBuilder routes)
    {
        var calibration = routes.MapGroup("/api/calibration").WithTags("Calibration");
        calibration
            .MapGet("/", async Task<Ok<CalibrationView>> (Bench bench, CalibrationDesk desk) => TypedResults.Ok(CalibrationView.Of(
                desk.Now, await bench.Calibrations.NewestAsync(), await bench.Calibrations.PredictionsAsync(),
                bench.Machines.Host.Machine)))
            .WithName("calibration");
        calibration.MapPost("/", Accepted<CreationView> (CalibrationDesk desk) => TypedResults.Accepted((string?)null, desk.Start()))
            .WithName("calibrate");
        calibration.MapDelete("/", NoContent (CalibrationDesk desk) =>
        {
            desk.Cancel();
            return TypedResults.NoContent();
        }).WithName("stopCalibrating");
        calibration
            .MapGet("/export", async Task<ContentHttpResult> (Bench bench) => TypedResults.Content(
                JsonSerializer.Serialize(
                    await bench.Calibrations.NewestAsync() ?? throw new UnknownThingException("calibration", "newest", []),
                    BenchJson.Options),
                "application/json"))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("exportCalibration");
    }
}
