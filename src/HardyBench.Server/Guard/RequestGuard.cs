using System.Net;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.Net.Http.Headers;

namespace HardyBench.Server.Guard;

/// <summary>Whose requests are answered. A browser carries any page's requests here, so that the address alone protects nothing: the host
/// must be one of ours (a foreign name can be made to lead here), and whatever could change something, and the live hub, must come from our
/// own page or from no page at all.</summary>
/// <param name="names">Host names that lead here, besides addresses written as numbers, which no foreign name can be.</param>
internal sealed class RequestGuard(IReadOnlyCollection<string> names)
{
    private const string Hub = "/live", SignIn = AccessToken.SignInPath;

    /// <summary>A foreign page can send none of these without being asked first, and nobody here says yes to that.</summary>
    private static readonly string[] BodyTypes = ["application/json", "application/octet-stream", "application/offset+octet-stream"];

    public void Use(IApplicationBuilder app) => app.Use(async (context, next) =>
    {
        if (WhyRefused(context.Request) is var (status, words))
        {
            await Refusal.WriteAsync(context, status, words);
            return;
        }

        await next(context);
    });

    private (int Status, string Words)? WhyRefused(HttpRequest request)
    {
        if (!IsOurs(request.Host))
        {
            return (
                StatusCodes.Status421MisdirectedRequest,
                "This server does not answer to that host name. Open it by its address, or start it with --host and the name."
            );
        }

        var isHub = request.Path.StartsWithSegments(Hub);
        if ((isHub || !IsReading(request.Method)) && !IsFromOurPage(request))
        {
            return (StatusCodes.Status403Forbidden, "A page of another address sent this. Only this server's own page and programs may.");
        }

        return !isHub && HasBody(request) && !IsBodyType(request)
            ? (StatusCodes.Status415UnsupportedMediaType, $"The content type of the body must be one of: {string.Join(", ", BodyTypes)}.")
            : null;
    }

    private bool IsOurs(HostString host) =>
        IPAddress.TryParse(host.Host.Trim('[', ']'), out _) || names.Contains(host.Host, StringComparer.OrdinalIgnoreCase);

    private static bool IsReading(string method) =>
        HttpMethods.IsGet(method) || HttpMethods.IsHead(method) || HttpMethods.IsOptions(method);

    /// <summary>Browsers name the page that asks; programs name none.</summary>
    private static bool IsFromOurPage(HttpRequest request)
    {
        var (origin, site) = (request.Headers.Origin, request.Headers["Sec-Fetch-Site"]);
        return (origin.Count == 0 || origin == $"{request.Scheme}://{request.Host.Value}")
            && (site.Count == 0 || site == "same-origin" || site == "none");
    }

    private static bool HasBody(HttpRequest request) =>
        request.ContentLength > 0 || request.Headers.TransferEncoding.Count > 0
        || (
            request.ContentLength is null
            && request.Protocol != HttpProtocol.Http11
            && request.HttpContext.Features.Get<IHttpRequestBodyDetectionFeature>()?.CanHaveBody == true
        );

    private static bool IsBodyType(HttpRequest request) =>
        MediaTypeHeaderValue.TryParse(request.ContentType, out var type)
        && (BodyTypes.Contains(type.MediaType.Value, StringComparer.OrdinalIgnoreCase)
            || (request.Path == SignIn && type.MediaType == "application/x-www-form-urlencoded"));
}
