using System.Text;
using System.Text.Json.Serialization;
using HardyBench.Core;
using HardyBench.Core.Advice.Briefs;
using HardyBench.Formats.Advice;
using HardyBench.Formats.Machines;
using HardyBench.Store;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Advice;

/// <summary>A brief as it is kept.</summary>
/// <param name="Version">Comes back with a change, so that two who edit at once do not overwrite each other.</param>
public sealed record BriefDocument(int Version, Brief Brief)
{
    public static BriefDocument Of(Stored<Brief> stored) => new(stored.Version, stored.Thing);
}

/// <summary>A change to one.</summary>
/// <remarks>A document that was read can be sent back as it is: what it says besides is ignored.</remarks>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Skip)]
public sealed record BriefChange(int Version, Brief Brief);

/// <summary>What became of a file of briefs.</summary>
/// <param name="Problems">Those that were left out.</param>
public sealed record BriefsRead(IReadOnlyList<BriefDocument> Added, IReadOnlyList<RowProblem> Problems);

internal static class BriefEndpoints
{
    public static void MapBriefs(this IEndpointRouteBuilder routes)
    {
        var briefs = routes.MapGroup("/api/briefs").WithTags("Advice");
        briefs.MapGet("/", async Task<Ok<BriefDocument[]>> (Bench bench) =>
                TypedResults.Ok((await bench.Briefs.AllAsync()).Select(BriefDocument.Of).ToArray()))
            .WithName("listBriefs");
        briefs.MapPost("/", async Task<Ok<BriefDocument>> (Brief brief, Bench bench) =>
                TypedResults.Ok(BriefDocument.Of(await bench.Briefs.AddAsync(brief))))
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity).WithName("addBrief");
        briefs.MapPut("/{id}", async Task<Ok<BriefDocument>> (string id, BriefChange change, Bench bench) =>
                TypedResults.Ok(BriefDocument.Of(await bench.Briefs.KeepAsync(change.Brief with { Id = id }, change.Version))))
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status409Conflict)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("keepBrief");
        briefs.MapDelete("/{id}", (string id, Bench bench) => SetDeletedAsync(bench, id, deleted: true))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("deleteBrief");
        briefs.MapPost("/{id}/restore", (string id, Bench bench) => SetDeletedAsync(bench, id, deleted: false))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("bringBriefBack");
        briefs.MapPost("/import", async Task<Ok<BriefsRead>> (HttpRequest request, Bench bench) =>
            {
                using var reader = new StreamReader(request.Body, Encoding.UTF8);
                var outcome = await bench.Briefs.ImportAsync(await reader.ReadToEndAsync());
                return TypedResults.Ok(new BriefsRead([.. outcome.Added.Select(BriefDocument.Of)], outcome.Problems));
            })
            .Accepts<Stream>("application/octet-stream")
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("importBriefs");
        briefs.MapGet("/export", async Task<FileContentHttpResult> (Bench bench) => TypedResults.File(
                Encoding.UTF8.GetBytes(await bench.Briefs.ExportAsync()), "application/octet-stream", "briefs.json"))
            .WithName("exportBriefs");
        briefs.MapGet("/{id}/answer", async Task<Ok<AnswerDocument>> (
                string id, Bench bench, AnswerDesk desk, CancellationToken stop) =>
                TypedResults.Ok(await desk.AnswerAsync((await bench.Briefs.FindAsync(id)).Thing, stop)))
            .ProducesProblem(StatusCodes.Status409Conflict)
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("answerBrief");
        briefs.MapGet("/{id}/answer/export", async Task<FileContentHttpResult> (
                string id, Bench bench, AnswerDesk desk, CancellationToken stop, string format = "json") =>
            {
                var answer = await desk.AnswerAsync((await bench.Briefs.FindAsync(id)).Thing, stop);
                var text = format switch
                {
                    "json" => AnswerJson.Write(answer),
                    "csv" => AnswerCsv.Write(answer),
                    _ => throw new UnknownThingException("format", format, ["json", "csv"]),
                };
                return TypedResults.File(Encoding.UTF8.GetBytes(text), "application/octet-stream", $"answer-{id}.{format}");
            })
            .ProducesProblem(StatusCodes.Status409Conflict)
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("exportAnswer");
        briefs.MapPost("/answer", async Task<Ok<AnswerDocument>> (Brief brief, AnswerDesk desk, CancellationToken stop) =>
                TypedResults.Ok(await desk.AnswerAsync(brief, stop)))
            .ProducesProblem(StatusCodes.Status409Conflict)
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("answer");
    }

    private static async Task<NoContent> SetDeletedAsync(Bench bench, string id, bool deleted)
    {
        await bench.Briefs.SetDeletedAsync(id, deleted);
        return TypedResults.NoContent();
    }
}
