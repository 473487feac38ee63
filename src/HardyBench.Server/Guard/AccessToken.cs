using System.Collections.Concurrent;
using System.Globalization;
using System.Net;
using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;

namespace HardyBench.Server.Guard;

/// <summary>The secret that lets others than this machine in. It is shown once; only its checksum is kept, and it is compared in constant
/// time. Programs send it as a bearer token; a browser signs in with it and gets a cookie that lasts until the server ends.</summary>
public sealed class AccessToken
{
    internal const string SignInPath = "/sign-in";

    private const string Cookie = "bench-session";

    /// <summary>A form holds nothing but the token.</summary>
    private const int LargestForm = 4096;

    private readonly byte[] hash;
    private readonly SignInAttempts attempts;
    private readonly ConcurrentDictionary<string, bool> sessions = new();

    private AccessToken(byte[] hash, TimeProvider time) => (this.hash, attempts) = (hash, new SignInAttempts(time));

    /// <summary>Makes a new one in place of any before.</summary>
    /// <returns>The token, which is kept nowhere.</returns>
    public static string Make(string file)
    {
        var token = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(32));
        SecretFile.Write(file, Encoding.ASCII.GetBytes(Convert.ToHexStringLower(HashOf(token))));
        return token;
    }

    /// <summary>The one that was made, or null where none was.</summary>
    public static AccessToken? Find(string file, TimeProvider? time = null) => File.Exists(file)
        ? new AccessToken(Convert.FromHexString(File.ReadAllText(file).Trim()), time ?? TimeProvider.System)
        : null;

    internal bool Is(string token) => CryptographicOperations.FixedTimeEquals(HashOf(token), hash);

    internal void Use(IApplicationBuilder app) => app.Use(async (context, next) =>
    {
        var address = context.Connection.RemoteIpAddress ?? IPAddress.None;
        if (attempts.Wait(address) is { } wait && (context.Request.Path == SignInPath || SentBy(context.Request) is not null))
        {
            context.Response.Headers.RetryAfter = ((int)Math.Ceiling(wait.TotalSeconds)).ToString(CultureInfo.InvariantCulture);
            await Refusal.WriteAsync(
                context, StatusCodes.Status429TooManyRequests,
                $"Too many wrong access tokens came from this address. Try again in {Math.Ceiling(wait.TotalSeconds)} s.");
        }
        else if (context.Request.Path == SignInPath)
        {
            await SignInAsync(context);
        }
        else if (IsKnown(context.Request))
        {
            await next(context);
        }
        else if (context.Request.Path.StartsWithSegments("/api") || context.Request.Path.StartsWithSegments("/live"))
        {
            if (SentBy(context.Request) is not null)
            {
                NoteWrong(context);
            }

            context.Response.Headers.WWWAuthenticate = "Bearer";
            await Refusal.WriteAsync(context, StatusCodes.Status401Unauthorized, "Send the access token, or sign in with it on the page.");
        }
        else
        {
            context.Response.Redirect(SignInPath);
        }
    });

    private bool IsKnown(HttpRequest request) =>
        (request.Cookies[Cookie] is { Length: > 0 } session && sessions.ContainsKey(session))
            || (SentBy(request) is { } token && Is(token));

    /// <summary>The token that a program sent; null without one. The scheme's case does not matter (RFC 9110, 11.1).</summary>
    private static string? SentBy(HttpRequest request)
    {
        const string Bearer = "Bearer ";
        var sent = request.Headers.Authorization.ToString();
        return sent.StartsWith(Bearer, StringComparison.OrdinalIgnoreCase) ? sent[Bearer.Length..].Trim() : null;
    }

    private void NoteWrong(HttpContext context)
    {
        var address = context.Connection.RemoteIpAddress ?? IPAddress.None;
        var count = attempts.Note(address);
        context.RequestServices.GetRequiredService<ILogger<AccessToken>>()
            .LogWarning("A wrong access token came from {Address}, {Count} within a minute", address, count);
    }

    /// <returns>The token of a form; null where it is no form that holds one.</returns>
    private static async Task<string?> TokenInAsync(HttpContext context)
    {
        if (context.Request.ContentLength is not (>= 0 and <= LargestForm))
        {
            return null;
        }

        try
        {
            return (await context.Request.ReadFormAsync(context.RequestAborted))["token"].ToString().Trim();
        }
        catch (Exception wrong) when (wrong is InvalidDataException or BadHttpRequestException)
        {
            return null;
        }
    }

    private async Task SignInAsync(HttpContext context)
    {
        var refused = false;
        if (HttpMethods.IsPost(context.Request.Method) && context.Request.HasFormContentType)
        {
            if (await TokenInAsync(context) is not { } token)
            {
                await Refusal.WriteAsync(context, StatusCodes.Status400BadRequest, "The form holds no access token, or far more than one.");
                return;
            }

            if (Is(token))
            {
                var session = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(32));
                sessions[session] = true;
                context.Response.Cookies.Append(
                    Cookie,
                    session,
                    new CookieOptions
                    {
                        HttpOnly = true,
                        Secure = true,
                        SameSite = SameSiteMode.Strict,
                    }
                );
                context.Response.Redirect("/");
                return;
            }

            NoteWrong(context);
            refused = true;
        }

        context.Response.StatusCode = refused ? StatusCodes.Status401Unauthorized : StatusCodes.Status200OK;
        context.Response.ContentType = "text/html; charset=utf-8";
        await context.Response.WriteAsync(
            $"""
            <!doctype html><html lang="en-GB"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Hardy Bench</title>
            <body style="font:16px/1.5 sans-serif;max-width:32rem;margin:15vh auto;padding:0 1rem">
            <h1 style="font-size:1.5rem">Hardy Bench</h1>
            <p>{(
                refused
                    ? "That is not the access token of this server."
                    : "This server asks for its access token. It was shown once, when it was created with “hardybench token”."
            )}</p>
            <form method="post"><label>Access token <input name="token" type="password" autocomplete="current-password" required autofocus style="width:100%;padding:.5rem;font:inherit"></label>
            <p><button style="padding:.5rem 1rem;font:inherit">Sign in</button></p></form>
            """,
            context.RequestAborted);
    }

    private static byte[] HashOf(string token) => SHA256.HashData(Encoding.UTF8.GetBytes(token));
}
