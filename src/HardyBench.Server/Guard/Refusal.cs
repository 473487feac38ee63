using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Mvc;

namespace HardyBench.Server.Guard;

/// <summary>The answer to a request that the guards do not let through.</summary>
internal static class Refusal
{
    public static Task WriteAsync(HttpContext context, int status, string words)
    {
        context.Response.StatusCode = status;
        return context.Response.WriteAsJsonAsync(
            new ProblemDetails { Status = status, Detail = words },
            options: null,
            contentType: "application/problem+json",
            context.RequestAborted
        );
    }
}
