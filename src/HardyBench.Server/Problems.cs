using System.Text.Json;
using HardyBench.Server.Advice;
using HardyBench.Workbench;
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
        : Failures.WordsOf(exception);

    private static int? StatusOf(Exception exception) => exception switch
    {
        BadHttpRequestException bad => bad.StatusCode,
        MeasuringNowException => StatusCodes.Status409Conflict,
        _ => Failures.KindOf(exception) is { } kind ? StatusOf(kind) : null,
    };

    private static int StatusOf(FailureKind kind) => kind switch
    {
        FailureKind.UnknownThing => StatusCodes.Status404NotFound,
        FailureKind.Conflict => StatusCodes.Status409Conflict,
        FailureKind.Input or FailureKind.NotPlayable => StatusCodes.Status422UnprocessableEntity,
        FailureKind.NotCreated or FailureKind.Storage => StatusCodes.Status507InsufficientStorage,
        FailureKind.NoPlayer => StatusCodes.Status503ServiceUnavailable,
        _ => StatusCodes.Status500InternalServerError,
    };
}
