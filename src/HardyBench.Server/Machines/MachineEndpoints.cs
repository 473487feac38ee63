using System.Text;
using HardyBench.Core.Findings.Comparing;
using HardyBench.Core.Machines;
using HardyBench.Core.Wording;
using HardyBench.Formats.Machines;
using HardyBench.Store;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Machines;

/// <summary>A machine as lists show it.</summary>
/// <param name="Decodes">What its media engines decode, a line each; empty without one.</param>
public sealed record MachineView(
    string Id,
    string Name,
    MachineKind Kind,
    string Summary,
    int Cores,
    double MemoryGigabytes,
    string? Graphics,
    string? Drive,
    MachineForm? Form,
    IReadOnlyList<string> Decodes, decimal? Price, string Currency)
{
    public static MachineView Of(Machine machine) => new(
        machine.Id, machine.Name, machine.Kind, machine.Summary, machine.Processor.Cores, machine.Memory.Gigabytes,
        machine.MainGraphics?.Name, machine.DriveFor(DriveRole.Media)?.Kind, machine.Form,
        [.. machine.MediaEngines.SelectMany(engine => engine.Capabilities).Select(row => row.Notation).Distinct()],
        machine.Price,
        Machine.Currency
    );
}

/// <summary>A machine whole, to be read and changed.</summary>
/// <param name="Version">Comes back with a change, so that two who edit at once do not overwrite each other.</param>
public sealed record MachineDocument(int Version, Machine Machine)
{
    public static MachineDocument Of(Stored<Machine> stored) => new(stored.Version, stored.Thing);
}

/// <summary>A number of a machine, as a form asks for it.</summary>
/// <param name="Member">Its name in JSON, within its part.</param>
/// <param name="Label">With its unit.</param>
public sealed record FigureView(string Part, string Member, string Label, double Min, double Max, bool IsWhole, bool IsOptional)
{
    public static FigureView Of(MachineFigure figure) => new(
        figure.Part, figure.Member, figure.Unit is null ? figure.Field : $"{figure.Field}, {figure.Unit}",
        figure.Min, figure.Max, figure.IsWhole, figure.IsOptional);
}

/// <summary>Runs of a machine as it was before a change, or of another computer that the data was used on. They do not count for it
/// now.</summary>
/// <param name="Elsewhere">The name of that other computer; null for the machine itself.</param>
/// <param name="Last">When the last of them started.</param>
/// <param name="Changes">What differs now, a phrase each.</param>
public sealed record EarlierRunsView(int Runs, DateTimeOffset Last, IReadOnlyList<string> Changes, string? Elsewhere)
{
    public static EarlierRunsView Of(EarlierRuns runs, Machine now) => new(
        runs.Runs, runs.Last, [.. LikeForLike.Differences(runs.Machine, now).Select(ComparisonWords.Change)],
        runs.Machine.Id == now.Id ? null : runs.Machine.Name);
}

/// <summary>What became of a file of machines.</summary>
/// <param name="Problems">Machines that were left out, or what was passed over.</param>
public sealed record ShelfView(IReadOnlyList<MachineDocument> Added, IReadOnlyList<RowProblem> Problems);

internal static class MachineEndpoints
{
    public static void MapMachines(this IEndpointRouteBuilder routes)
    {
        var machines = routes.MapGroup("/api/machines").WithTags("Machines");
        machines.MapGet("/", async Task<Ok<MachineView[]>> (Bench bench) =>
                TypedResults.Ok((await bench.Machines.AllAsync()).Select(MachineView.Of).ToArray()))
            .WithName("listMachines");
        machines.MapGet("/figures", () => TypedResults.Ok(MachineFigures.All.Select(FigureView.Of).ToArray())).WithName("machineFigures");
        machines.MapGet("/{id}", async Task<Ok<MachineDocument>> (string id, Bench bench) =>
                TypedResults.Ok(MachineDocument.Of(await bench.Machines.StoredAsync(id))))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("machine");
        machines.MapGet("/{id}/earlier", async Task<Ok<EarlierRunsView[]>> (string id, Bench bench) =>
            {
                var machine = await bench.Machines.FindAsync(id);
                var earlier = await bench.Runs.OfEarlierAsync(
                    machine, id == bench.Machines.Host.Id ? [.. bench.Machines.Host.Others.Select(other => other.Id)] : []);
                return TypedResults.Ok(earlier.Select(runs => EarlierRunsView.Of(runs, machine)).ToArray());
            })
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("earlierRuns")
            .WithDescription("Runs of the machine before it was changed, and of other computers that the data was used on.");
        machines.MapPost("/", async Task<Ok<MachineDocument>> (Machine machine, Bench bench) =>
                TypedResults.Ok(MachineDocument.Of(await bench.Machines.AddAsync(machine))))
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity).WithName("addMachine");
        machines.MapPut("/{id}", async Task<Ok<MachineDocument>> (string id, MachineDocument change, Bench bench) =>
            {
                var machine = change.Machine with { Id = id };
                return TypedResults.Ok(new MachineDocument(await bench.Machines.KeepAsync(machine, change.Version), machine));
            })
            .ProducesProblem(StatusCodes.Status409Conflict)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("keepMachine");
        machines.MapPost("/{id}/duplicate", async Task<Ok<MachineDocument>> (string id, Bench bench) =>
                TypedResults.Ok(MachineDocument.Of(await bench.Machines.DuplicateAsync(id))))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("duplicateMachine");
        machines.MapDelete("/{id}", (string id, Bench bench) => SetDeletedAsync(bench, id, deleted: true))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("deleteMachine");
        machines.MapPost("/{id}/restore", (string id, Bench bench) => SetDeletedAsync(bench, id, deleted: false))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("bringMachineBack");
        machines.MapPost("/import", async Task<Ok<ShelfView>> (string name, HttpRequest request, Bench bench) =>
            {
                using var reader = new StreamReader(request.Body, Encoding.UTF8);
                var outcome = await bench.Machines.ImportAsync(name, await reader.ReadToEndAsync());
                return TypedResults.Ok(new ShelfView([.. outcome.Added.Select(MachineDocument.Of)], outcome.Problems));
            })
            .Accepts<Stream>("application/octet-stream")
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("importMachines");
        machines.MapGet("/export", async Task<FileContentHttpResult> (string format, string[] ids, Bench bench) =>
                TypedResults.File(
                    Encoding.UTF8.GetBytes(await bench.Machines.ExportAsync(ids, format)),
                    "application/octet-stream",
                    $"machines.{format}"
                )
        )
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("exportMachines");
    }

    private static async Task<NoContent> SetDeletedAsync(Bench bench, string id, bool deleted)
    {
        await bench.Machines.SetDeletedAsync(id, deleted);
        return TypedResults.NoContent();
    }
}
