using System.Text.Json;
using HardyBench.Core;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Programs;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Building;
using HardyBench.Formats.Interchange;
using HardyBench.Formats.Machines;
using HardyBench.Media.Clips;
using HardyBench.Server.Advice;
using HardyBench.Store;
using HardyBench.Workbench.Comparing;
using HardyBench.Workbench.Data;
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
            ProblemDetails = new ProblemDetails { Status = status, Detail = WordsOf(exception) },
        });
    }

    /// <summary>What was wrong with a body, with the place in it.</summary>
    private static string WordsOf(Exception exception) => exception is BadHttpRequestException { InnerException: JsonException wrong }
        ? $"The body is wrong at {wrong.Path}: {wrong.Message} Nothing was changed."
        : BenchDatabaseFactory.IsDriveFailure(exception)
            ? $"The drive with the data cannot be written: {exception.GetBaseException().Message} Nothing was changed. Free some space, then "
                + "try again."
        : exception.Message;

    private static int? StatusOf(Exception exception) => exception switch
    {
        BadHttpRequestException bad => bad.StatusCode,
        UnknownThingException => StatusCodes.Status404NotFound,
        VersionConflictException or MeasuringNowException => StatusCodes.Status409Conflict,
        PlanRefusedException
        or TimelineRefusedException
        or MachineRefusedException
        or ProgramRefusedException
        or BriefRefusedException
        or PartRefusedException
        or ShelfException
        or ComparisonRefusedException
        or MediaException
        or InterchangeException
        or PackException
        or SeriesException
        or FormatException => StatusCodes.Status422UnprocessableEntity,
        CreationException or DataFolderException => StatusCodes.Status507InsufficientStorage,
        InvalidDataException => StatusCodes.Status500InternalServerError,
        PlayerUnavailableException => StatusCodes.Status503ServiceUnavailable,
        _ => BenchDatabaseFactory.IsDriveFailure(exception) ? StatusCodes.Status507InsufficientStorage : null,
    };
}
