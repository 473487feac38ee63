using HardyBench.Core.Playback;
using HardyBench.Core.Timelines.Building;
using HardyBench.Formats.Interchange;
using HardyBench.Player.Clips;
using HardyBench.Player.Native;
using HardyBench.Store;
using HardyBench.Workbench;
using HardyBench.Workbench.Packs;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Mvc;

namespace HardyBench.Server;

/// <summary>The one place where failures become problem details.</summary>
internal sealed class Problems(IProblemDetailsService details) : IExceptionHandler
{
    public ValueTask<bool> TryHandleAsync(HttpContext context, Exception exception, CancellationToken cancellationToken)
    {
        if (StatusOf(exception) is not { } status)
        {
            return ValueTask.FromResult(false);
        }

        context.Response.StatusCode = status;
        return details.TryWriteAsync(new ProblemDetailsContext
        {
            HttpContext = context,
            ProblemDetails = new ProblemDetails { Status = status, Detail = exception.Message },
        });
    }

    private static int? StatusOf(Exception exception) => exception switch
    {
        UnknownThingException => StatusCodes.Status404NotFound,
        VersionConflictException => StatusCodes.Status409Conflict,
        PlanRefusedException or MediaException or InterchangeException or PackException or SeriesException or FormatException => StatusCodes.Status422UnprocessableEntity,
        MakingException or DataFolderException => StatusCodes.Status507InsufficientStorage,
        InvalidDataException => StatusCodes.Status500InternalServerError,
        PlayerUnavailableException => StatusCodes.Status503ServiceUnavailable,
        _ => null,
    };
}
