using System.Text;
using System.Text.Json.Serialization;
using HardyBench.Core.Playback.Programs;
using HardyBench.Core.Wording;
using HardyBench.Formats.Machines;
using HardyBench.Store;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Programs;

/// <summary>An editing program whole, to be chosen, read and changed.</summary>
/// <param name="Version">Comes back with a change, so that two who edit at once do not overwrite each other.</param>
/// <param name="Words">How it uses a machine, a phrase each; what comes in here is not read.</param>
public sealed record ProgramDocument(int Version, EditingProgram Program, IReadOnlyList<string> Words)
{
    public static ProgramDocument Of(Stored<EditingProgram> stored) => new(stored.Version, stored.Thing, ProgramWords.Of(stored.Thing));
}

/// <summary>A change to one.</summary>
/// <remarks>A document that was read can be sent back as it is: what it says besides is ignored.</remarks>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Skip)]
public sealed record ProgramChange(int Version, EditingProgram Program);

/// <summary>What became of a file of editing programs.</summary>
/// <param name="Problems">Those that were left out.</param>
public sealed record ProgramsRead(IReadOnlyList<ProgramDocument> Added, IReadOnlyList<RowProblem> Problems);

internal static class ProgramEndpoints
{
    public static void MapPrograms(this IEndpointRouteBuilder routes)
    {
        var programs = routes.MapGroup("/api/programs").WithTags("Editing programs");
        programs.MapGet("/", async Task<Ok<ProgramDocument[]>> (Bench bench) =>
                TypedResults.Ok((await bench.Programs.AllAsync()).Select(ProgramDocument.Of).ToArray()))
            .WithName("listPrograms");
        programs.MapPost("/", async Task<Ok<ProgramDocument>> (EditingProgram program, Bench bench) =>
                TypedResults.Ok(ProgramDocument.Of(await bench.Programs.AddAsync(program))))
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity).WithName("addProgram");
        programs.MapPut("/{id}", async Task<Ok<ProgramDocument>> (string id, ProgramChange change, Bench bench) =>
            {
                var program = change.Program with { Id = id };
                var version = await bench.Programs.KeepAsync(program, change.Version);
                return TypedResults.Ok(ProgramDocument.Of(new Stored<EditingProgram>(program, version)));
            })
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status409Conflict)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("keepProgram");
        programs.MapDelete("/{id}", (string id, Bench bench) => SetDeletedAsync(bench, id, deleted: true))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("deleteProgram");
        programs.MapPost("/{id}/restore", (string id, Bench bench) => SetDeletedAsync(bench, id, deleted: false))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("bringProgramBack");
        programs.MapPost("/import", async Task<Ok<ProgramsRead>> (HttpRequest request, Bench bench) =>
            {
                using var reader = new StreamReader(request.Body, Encoding.UTF8);
                var outcome = await bench.Programs.ImportAsync(await reader.ReadToEndAsync());
                return TypedResults.Ok(new ProgramsRead([.. outcome.Added.Select(ProgramDocument.Of)], outcome.Problems));
            })
            .Accepts<Stream>("application/octet-stream")
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("importPrograms");
        programs.MapGet("/export", async Task<FileContentHttpResult> (Bench bench) => TypedResults.File(
                Encoding.UTF8.GetBytes(await bench.Programs.ExportAsync()), "application/octet-stream", "programs.json"))
            .WithName("exportPrograms");
    }

    private static async Task<NoContent> SetDeletedAsync(Bench bench, string id, bool deleted)
    {
        await bench.Programs.SetDeletedAsync(id, deleted);
        return TypedResults.NoContent();
    }
}
