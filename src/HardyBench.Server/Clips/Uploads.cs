using System.Globalization;
using System.Text;
using HardyBench.Player.Native;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Clips;

/// <summary>Files on their way in, by the open protocol tus 1.0.0 (core and creation): of any size, resumed after any break,
/// also one of the server. The file's length stands beside it, so that nothing has to be remembered.</summary>
internal static class Uploads
{
    private const string Version = "1.0.0", Folder = "/api/uploads";

    public static void MapUploads(this IEndpointRouteBuilder routes)
    {
        // The protocol speaks in headers; it has no place in the API's document.
        var uploads = routes.MapGroup(Folder).ExcludeFromDescription();
        uploads.MapPost("/", Create);
        uploads.MapMethods("/{id}", ["HEAD"], Tell);
        uploads.MapPatch("/{id}", AppendAsync);
        uploads.MapDelete("/{id}", Abandon);
    }

    private static IResult Create(HttpContext context, Bench bench)
    {
        if (!long.TryParse(context.Request.Headers["Upload-Length"], NumberStyles.None, CultureInfo.InvariantCulture, out var length) || length < 1)
        {
            return Results.Problem("Upload-Length must say how long the file is.", statusCode: StatusCodes.Status400BadRequest);
        }

        if (length > new DriveInfo(bench.Folder.Path).AvailableFreeSpace)
        {
            return Results.Problem($"The file has {length / 1e6:0} MB, which is more than is free in {bench.Folder.Path}. Nothing was taken.", statusCode: StatusCodes.Status507InsufficientStorage);
        }

        var id = Guid.NewGuid().ToString("n");
        File.WriteAllText(PathOf(bench, id) + ".info", $"{length}\n{NameIn(context.Request.Headers["Upload-Metadata"])}");
        File.Create(PathOf(bench, id)).Dispose();
        context.Response.Headers["Tus-Resumable"] = Version;
        return Results.Created($"{Folder}/{id}", null);
    }

    private static IResult Tell(string id, HttpContext context, Bench bench)
    {
        if (Find(bench, id) is not { } upload)
        {
            return Results.NotFound();
        }

        context.Response.Headers["Tus-Resumable"] = Version;
        context.Response.Headers.CacheControl = "no-store";
        context.Response.Headers["Upload-Offset"] = new FileInfo(upload.File).Length.ToString(CultureInfo.InvariantCulture);
        context.Response.Headers["Upload-Length"] = upload.Length.ToString(CultureInfo.InvariantCulture);
        return Results.Ok();
    }

    private static async Task<IResult> AppendAsync(string id, HttpContext context, Bench bench)
    {
        if (Find(bench, id) is not { } upload)
        {
            return Results.NotFound();
        }

        context.Features.Get<IHttpMaxRequestBodySizeFeature>()?.MaxRequestBodySize = null;
        context.Response.Headers["Tus-Resumable"] = Version;
        long offset;
        await using (var file = new FileStream(upload.File, FileMode.Open, FileAccess.Write, FileShare.None))
        {
            if (context.Request.Headers["Upload-Offset"] != file.Length.ToString(CultureInfo.InvariantCulture))
            {
                return Results.Problem($"The file is at {file.Length} bytes; go on from there.", statusCode: StatusCodes.Status409Conflict);
            }

            file.Seek(0, SeekOrigin.End);
            try
            {
                await context.Request.Body.CopyToAsync(file, context.RequestAborted);
            }
            catch (Exception broken) when (broken is OperationCanceledException or BadHttpRequestException or IOException)
            {
                // What came is kept; the sender asks how far it got and goes on.
            }

            offset = file.Length;
        }

        context.Response.Headers["Upload-Offset"] = offset.ToString(CultureInfo.InvariantCulture);
        return offset < upload.Length ? Results.NoContent() : await TakeAsync(upload, bench, context);
    }

    private static async Task<IResult> TakeAsync(Upload upload, Bench bench, HttpContext context)
    {
        try
        {
            var clip = await bench.Clips.Own!.TakeAsync(upload.File, upload.Name, CancellationToken.None);
            context.Response.Headers["X-Clip"] = clip.Id;
            return Results.NoContent();
        }
        catch (MediaException refused)
        {
            return Results.Problem($"{refused.Message} The file was not kept.", statusCode: StatusCodes.Status422UnprocessableEntity);
        }
        finally
        {
            File.Delete(upload.File);
            File.Delete(upload.File + ".info");
        }
    }

    private static IResult Abandon(string id, Bench bench)
    {
        if (Find(bench, id) is { } upload)
        {
            File.Delete(upload.File);
            File.Delete(upload.File + ".info");
        }

        return Results.NoContent();
    }

    private static Upload? Find(Bench bench, string id)
    {
        if (!Guid.TryParseExact(id, "n", out _) || !File.Exists(PathOf(bench, id) + ".info") || !File.Exists(PathOf(bench, id)))
        {
            return null;
        }

        var lines = File.ReadAllText(PathOf(bench, id) + ".info").Split('\n', 2);
        return new Upload(PathOf(bench, id), long.Parse(lines[0], CultureInfo.InvariantCulture), lines[1]);
    }

    /// <summary>"filename" of the protocol's metadata: pairs of a name and base64.</summary>
    private static string NameIn(string? metadata)
    {
        foreach (var pair in (metadata ?? string.Empty).Split(','))
        {
            var parts = pair.Trim().Split(' ');
            var bytes = new byte[parts[^1].Length];
            if (parts is ["filename", var encoded] && Convert.TryFromBase64String(encoded, bytes, out var length))
            {
                return Encoding.UTF8.GetString(bytes, 0, length);
            }
        }

        return "clip.mp4";
    }

    private static string PathOf(Bench bench, string id) => Path.Combine(bench.Folder.Incoming, id);

    private sealed record Upload(string File, long Length, string Name);
}
