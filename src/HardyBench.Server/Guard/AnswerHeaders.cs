using System.Security.Cryptography;
using System.Text;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Builder;

namespace HardyBench.Server.Guard;

/// <summary>What every answer tells a browser about how it may be used: scripts and all else from here alone, in no other page's
/// frame.</summary>
internal static partial class AnswerHeaders
{
    /// <summary>The API's reference writes its scripts and styles into its own page.</summary>
    private const string Reference = "/reference";

    /// <param name="page">The built page, or null where there is none.</param>
    public static void Use(IApplicationBuilder app, string? page)
    {
        var scripts = string.Join(
            ' ',
            InlineScripts(page).Select(script => $"'sha256-{Convert.ToBase64String(SHA256.HashData(Encoding.UTF8.GetBytes(script)))}'")
        );
        var (strict, reference) = (
            Policy($"script-src 'self' {scripts}; style-src 'self'; style-src-attr 'unsafe-inline'"),
            Policy("script-src 'self' 'unsafe-inline'; style-src 'self' 'unsafe-inline'")
        );
        app.Use((context, next) =>
        {
            // Only now, as it sets out: an answer that becomes an error starts again without what it contained before.
            context.Response.OnStarting(() =>
            {
                var headers = context.Response.Headers;
                headers.ContentSecurityPolicy = context.Request.Path.StartsWithSegments(Reference) ? reference : strict;
                headers.XContentTypeOptions = "nosniff";
                headers.XFrameOptions = "DENY";
                headers["Referrer-Policy"] = "no-referrer";
                headers["Cross-Origin-Opener-Policy"] = "same-origin";
                headers["Cross-Origin-Resource-Policy"] = "same-origin";
                return Task.CompletedTask;
            });
            return next(context);
        });
    }

    private static string Policy(string scriptsAndStyles) =>
        $"default-src 'none'; {scriptsAndStyles}; img-src 'self' data: blob:; font-src 'self' data:; connect-src 'self'; "
        + "form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

    /// <summary>The built page holds two short scripts of its own, which are known by their checksums.</summary>
    private static IEnumerable<string> InlineScripts(string? page) =>
        page is null || !File.Exists(page) ? [] : InlineScript().Matches(File.ReadAllText(page)).Select(script => script.Groups[1].Value);

    [GeneratedRegex("<script>(.*?)</script>", RegexOptions.Singleline | RegexOptions.CultureInvariant, matchTimeoutMilliseconds: 1000)]
    private static partial Regex InlineScript();
}
