using System.Text;
using System.Text.Json.Serialization;
using HardyBench.Core.Advice.Parts;
using HardyBench.Formats.Advice;
using HardyBench.Store;
using HardyBench.Workbench;
using HardyBench.Workbench.Advice;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Advice;

/// <summary>Parts that somebody would put together.</summary>
/// <param name="Parts">Ids, one of each kind; alike graphics units as often as they are wanted.</param>
public sealed record BuildRequest(IReadOnlyList<string> Parts);

/// <summary>What comes of them.</summary>
/// <param name="Problems">Why they make no machine, a sentence each; empty where they do.</param>
/// <param name="Price">Of all that were found.</param>
public sealed record CheckedBuild(IReadOnlyList<string> Problems, decimal Price);

internal static class PartEndpoints
{
    public static void MapParts(this IEndpointRouteBuilder routes)
    {
        var parts = routes.MapGroup("/api/parts").WithTags("Advice");
        parts.MapGet("/", async Task<Ok<PartLine[]>> (Bench bench) =>
                TypedResults.Ok((await bench.Catalogue.StoredAsync()).Select(PartLine.Of).ToArray()))
            .WithName("listParts");
        parts.MapGet("/columns", Ok<IReadOnlyDictionary<string, IReadOnlyList<string>>> () => TypedResults.Ok(PartCells.ByKind))
            .WithName("partColumns");
        parts.MapPost("/", async Task<Ok<PartLine>> (NewPart part, Bench bench) =>
                TypedResults.Ok(PartLine.Of(await bench.Catalogue.AddAsync(part.Cells))))
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity).WithName("addPart");
        parts.MapPut("/{id}", async Task<Ok<PartLine>> (string id, PartEdit change, Bench bench) =>
                TypedResults.Ok(PartLine.Of(await bench.Catalogue.KeepAsync(id, change.Cells, change.Version))))
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status409Conflict)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("keepPart");
        parts.MapPost("/import", async Task<Ok<CatalogueOutcome>> (HttpRequest request, Bench bench) =>
            {
                using var reader = new StreamReader(request.Body, Encoding.UTF8);
                return TypedResults.Ok(await bench.Catalogue.ImportAsync(await reader.ReadToEndAsync()));
            })
            .Accepts<Stream>("application/octet-stream")
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("importParts");
        parts.MapGet("/export", async Task<FileContentHttpResult> (Bench bench, string format = "json") => TypedResults.File(
                Encoding.UTF8.GetBytes(await bench.Catalogue.ExportAsync(format)), "application/octet-stream", $"parts.{format}"))
            .ProducesProblem(StatusCodes.Status404NotFound)
            .WithName("exportParts");
        parts.MapPost("/check", async Task<Ok<CheckedBuild>> (BuildRequest wanted, Bench bench) =>
            {
                var (problems, price) = new Catalogue(await bench.Catalogue.AllAsync()).Check(wanted.Parts);
                return TypedResults.Ok(new CheckedBuild(problems, price));
            })
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity).WithName("checkBuild");
        parts.MapDelete("/{id}", (string id, Bench bench) => SetDeletedAsync(bench, id, deleted: true))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("deletePart");
        parts.MapPost("/{id}/restore", (string id, Bench bench) => SetDeletedAsync(bench, id, deleted: false))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("bringPartBack");
    }

    private static async Task<NoContent> SetDeletedAsync(Bench bench, string id, bool deleted)
    {
        await bench.Catalogue.SetDeletedAsync(id, deleted);
        return TypedResults.NoContent();
    }
}

/// <summary>A part in a line.</summary>
/// <param name="Kind">processor, board, memory, graphics, drive, supply, cooler or case.</param>
/// <param name="Words">What matters of it, a phrase.</param>
/// <param name="Version">Comes back with a change, so that two who edit at once do not overwrite each other.</param>
/// <param name="Cells">Everything that is stated of it, by column; docs/formats.md names them.</param>
public sealed record PartLine(
    string Id, string Kind, string Name, decimal Price, DateOnly? PricedOn, string Words, int Version,
    IReadOnlyDictionary<string, string> Cells)
{
    public static PartLine Of(Stored<Part> stored) => new(
        stored.Thing.Id, Core.Wording.PartWords.KindOf(stored.Thing), stored.Thing.Name, stored.Thing.Price, stored.Thing.PricedOn,
        Core.Wording.PartWords.Of(stored.Thing), stored.Version, PartCells.Of(stored.Thing));
}

/// <param name="Cells">By column, its kind among them; empty ones are left out.</param>
public sealed record NewPart(IReadOnlyDictionary<string, string> Cells);

/// <param name="Version">The version that it was read at.</param>
/// <param name="Cells">All of them, by column; what is left out it has no more.</param>
/// <remarks>A document that was read can be sent back as it is: what it says besides is ignored.</remarks>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Skip)]
public sealed record PartEdit(int Version, IReadOnlyDictionary<string, string> Cells);
