using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;

namespace HardyBench.Server.Guard;

/// <summary>The secret that lets others than this machine in. It is shown once; only its checksum is kept, and it is compared in constant
/// time. Programs send it as a bearer token; a browser signs in with it and gets a cookie that lasts until the server ends.</summary>
public sealed class AccessToken
{
    internal const string SignInPath = "/sign-in";

    private const string Cookie = "bench-session";

    private readonly byte[] hash;
    private readonly ConcurrentDictionary<string, bool> sessions = new();

    private AccessToken(byte[] hash) => this.hash = hash;

    /// <summary>Makes a new one in place of any before.</summary>
    /// <returns>The token, which is kept nowhere.</returns>
    public static string Make(string file)
    {
        var token = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(32));
        SecretFile.Write(file, Encoding.ASCII.GetBytes(Convert.ToHexStringLower(HashOf(token))));
        return token;
    }

    /// <summary>The one that was made, or null where none was.</summary>
    public static AccessToken? Find(string file) =>
        File.Exists(file) ? new AccessToken(Convert.FromHexString(File.ReadAllText(file).Trim())) : null;

    internal bool Is(string token) => CryptographicOperations.FixedTimeEquals(HashOf(token), hash);

    internal void Use(IApplicationBuilder app) => app.Use(async (context, next) =>
    {
        if (context.Request.Path == SignInPath)
        {
            await SignInAsync(context);
        }
        else if (IsKnown(context.Request))
        {
            await next(context);
        }
        else if (context.Request.Path.StartsWithSegments("/api") || context.Request.Path.StartsWithSegments("/live"))
        {
            context.Response.Headers.WWWAuthenticate = "Bearer";
            await Refusal.WriteAsync(context, StatusCodes.Status401Unauthorized, "Send the access token, or sign in with it on the page.");
        }
        else
        {
            context.Response.Redirect(SignInPath);
        }
    });

    private bool IsKnown(HttpRequest request)
    {
        const string Bearer = "Bearer ";
        var sent = request.Headers.Authorization.ToString();
        return (request.Cookies[Cookie] is { Length: > 0 } session && sessions.ContainsKey(session))
            || (sent.StartsWith(Bearer, StringComparison.Ordinal) && Is(sent[Bearer.Length..].Trim()));
    }

    private async Task SignInAsync(HttpContext context)
    {
        var refused = false;
        if (HttpMethods.IsPost(context.Request.Method) && context.Request.HasFormContentType)
        {
            if (Is((await context.Request.ReadFormAsync(context.RequestAborted))["token"].ToString().Trim()))
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
                    : "This server asks for its access token. It was shown once, when it was made with “hardybench token”."
            )}</p>
            <form method="post"><label>Access token <input name="token" type="password" autocomplete="current-password" required autofocus style="width:100%;padding:.5rem;font:inherit"></label>
            <p><button style="padding:.5rem 1rem;font:inherit">Sign in</button></p></form>
            """,
            context.RequestAborted);
    }

    private static byte[] HashOf(string token) => SHA256.HashData(Encoding.UTF8.GetBytes(token));
}
