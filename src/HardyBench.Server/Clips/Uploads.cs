using System.Collections.Concurrent;
using System.Globalization;
using System.Text;
using HardyBench.Core.Footage;
using HardyBench.Core.Pacing;
using HardyBench.Server.Plays;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Connections;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Clips;

/// <summary>Files on their way in, by the open protocol tus 1.0.0 (core, creation, termination, expiration): of any size, resumed after any
/// break, also one of the server. The file's length stands beside it, so that nothing has to be remembered.</summary>
internal static class Uploads
{
    private const string Version = "1.0.0", Folder = "/api/uploads", BytesOfFile = "application/offset+octet-stream";

    /// <summary>Files that may be half sent at once.</summary>
    private const int MaxUnfinished = 50;

    /// <summary>Longer names are no file's; those of Linux have 255 bytes at most.</summary>
    private const int LongestName = 255;

    /// <summary>Files that somebody is adding to now.</summary>
    private static readonly ConcurrentDictionary<string, bool> Taken = new();

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
        if (
            !long.TryParse(context.Request.Headers["Upload-Length"], NumberStyles.None, CultureInfo.InvariantCulture, out var length)
            || length < 1
        )
        {
            return Results.Problem("Upload-Length must state the size of the file.", statusCode: StatusCodes.Status400BadRequest);
        }

        if (length > UploadRoom.LargestFile)
        {
            return Results.Problem(
                $"The file has {length / 1e9:0.0} GB; at most {UploadRoom.LargestFile / 1e9:0} GB can be uploaded. Nothing was saved.",
                statusCode: StatusCodes.Status413PayloadTooLarge
            );
        }

        var name = NameIn(context.Request.Headers["Upload-Metadata"]);
        if (Encoding.UTF8.GetByteCount(name) > LongestName)
        {
            return Results.Problem(
                $"The file's name is longer than {LongestName} bytes. Nothing was saved; give it a shorter one.",
                statusCode: StatusCodes.Status422UnprocessableEntity
            );
        }

        var underWay = WorkInProgress(bench);
        if (underWay.Count >= MaxUnfinished)
        {
            return Results.Problem(
                $"{underWay.Count} uploads are unfinished, the most allowed. Nothing was saved; finish or delete some of them.",
                statusCode: StatusCodes.Status429TooManyRequests);
        }

        if (length > bench.Folder.Room - underWay.StillToCome || length > UploadRoom.MaxInProgress - underWay.Declared)
        {
            return Results.Problem(
                $"The file has {length / 1e6:0} MB, more than the free space in {bench.Folder.Path} beside other "
                    + "uploads. Nothing was saved.",
                statusCode: StatusCodes.Status507InsufficientStorage);
        }

        var id = Guid.NewGuid().ToString("n");
        File.Create(PathOf(bench, id)).Dispose();
        File.WriteAllText(PathOf(bench, id) + ".info", $"{length}\n{name}");
        context.Response.Headers["Tus-Resumable"] = Version;
        SetExpiryHeader(context, PathOf(bench, id));
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
        SetExpiryHeader(context, upload.File);
        return Results.Ok();
    }

    private static async Task<IResult> AppendAsync(string id, HttpContext context, Bench bench, ThisMachineInUse inUse)
    {
        if (Find(bench, id) is not { } upload)
        {
            return Results.NotFound();
        }

        if (context.Request.ContentType != BytesOfFile)
        {
            return Results.Problem(
                $"The bytes of a file have the content type {BytesOfFile}.",
                statusCode: StatusCodes.Status415UnsupportedMediaType
            );
        }

        if (!Taken.TryAdd(upload.File, true))
        {
            return Results.Problem(
                "This file is being uploaded by another request. Request its offset and continue from there.",
                statusCode: StatusCodes.Status409Conflict
            );
        }

        try
        {
            return await AddAsync(upload, context, bench, inUse);
        }
        finally
        {
            Taken.TryRemove(upload.File, out _);
        }
    }

    private static async Task<IResult> AddAsync(Upload upload, HttpContext context, Bench bench, ThisMachineInUse inUse)
    {
        context.Features.Get<IHttpMaxRequestBodySizeFeature>()?.MaxRequestBodySize = null;
        context.Response.Headers["Tus-Resumable"] = Version;
        long offset;
        // Without a buffer, so that whoever asks how far it is hears of every byte that came.
        await using (var file = new FileStream(upload.File, FileMode.Open, FileAccess.Write, FileShare.Read, bufferSize: 0))
        {
            if (context.Request.Headers["Upload-Offset"] != file.Length.ToString(CultureInfo.InvariantCulture))
            {
                return Results.Problem($"The upload is at {file.Length} bytes; continue from there.", statusCode: StatusCodes.Status409Conflict);
            }

            var begun = file.Seek(0, SeekOrigin.End);
            try
            {
                var left = upload.Length - begun;
                if (await UploadRoom.CopyAsync(context.Request.Body, file, left, context.RequestAborted) > left)
                {
                    file.SetLength(begun);
                    return Results.Problem(
                        $"The file is larger than the declared {upload.Length} bytes. What was received before is kept, at "
                            + $"{begun} bytes.",
                        statusCode: StatusCodes.Status413PayloadTooLarge);
                }
            }
            catch (Exception broken) when (broken is OperationCanceledException or BadHttpRequestException or ConnectionResetException)
            {
                // What came is kept; the sender asks how far it got and goes on.
            }
            catch (IOException full)
            {
                return Results.Problem(
                    $"The file cannot be written: {full.Message} What was received is kept; free some space, then continue.",
                    statusCode: StatusCodes.Status507InsufficientStorage
                );
            }

            offset = file.Length;
        }

        context.Response.Headers["Upload-Offset"] = offset.ToString(CultureInfo.InvariantCulture);
        SetExpiryHeader(context, upload.File);
        return offset < upload.Length ? Results.NoContent() : await TakeAsync(upload, bench, context, inUse);
    }

    private static async Task<IResult> TakeAsync(Upload upload, Bench bench, HttpContext context, ThisMachineInUse inUse)
    {
        try
        {
            // Inspecting a clip loads the machine, so it waits until nothing is measured here.
            using var turn = await inUse.TakeAsync("a clip is being inspected", CancellationToken.None);
            var clip = await bench.Clips.Own!.TakeAsync(upload.File, upload.Name, CancellationToken.None);
            context.Response.Headers["X-Clip"] = Uri.EscapeDataString(clip.Id);
            return Results.NoContent();
        }
        catch (MediaException refused)
        {
            return Results.Problem($"{refused.Message} The file was not saved.", statusCode: StatusCodes.Status422UnprocessableEntity);
        }
        finally
        {
            File.Delete(upload.File);
            File.Delete(upload.File + ".info");
        }
    }

    private static IResult Abandon(string id, Bench bench)
    {
        if (Find(bench, id) is { } upload && !Taken.ContainsKey(upload.File))
        {
            File.Delete(upload.File);
            File.Delete(upload.File + ".info");
        }

        return Results.NoContent();
    }

    private static void SetExpiryHeader(HttpContext context, string file) =>
        context.Response.Headers["Upload-Expires"] = (File.GetLastWriteTimeUtc(file) + UploadRoom.KeptFor).ToString(
            "R",
            CultureInfo.InvariantCulture
        );

    /// <summary>Declared bytes of all unfinished uploads, and how many of them have not come yet.</summary>
    private static (int Count, long Declared, long StillToCome) WorkInProgress(Bench bench)
    {
        var uploads = Directory.EnumerateFiles(bench.Folder.Incoming, "*.info")
            .Select(info => Find(bench, Path.GetFileNameWithoutExtension(info))).OfType<Upload>().ToList();
        return (
            uploads.Count, uploads.Sum(upload => upload.Length),
            uploads.Sum(upload => Math.Max(0, upload.Length - new FileInfo(upload.File).Length)));
    }

    /// <summary>Bytes that half sent files may still bring.</summary>
    public static long Promised(Bench bench) => WorkInProgress(bench).StillToCome;

    private static Upload? Find(Bench bench, string id)
    {
        var file = PathOf(bench, id);
        if (!Guid.TryParseExact(id, "n", out _) || !File.Exists(file + ".info") || !File.Exists(file))
        {
            return null;
        }

        var lines = File.ReadAllText(file + ".info").Split('\n', 2);
        return lines.Length == 2 && long.TryParse(lines[0], NumberStyles.None, CultureInfo.InvariantCulture, out var length)
            ? new Upload(file, length, lines[1])
            : null;
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

    /// <summary>Only ids of ours make a path.</summary>
    private static string PathOf(Bench bench, string id) =>
        Path.Combine(bench.Folder.Incoming, Guid.TryParseExact(id, "n", out var known) ? known.ToString("n") : "none");

    private sealed record Upload(string File, long Length, string Name);
}
