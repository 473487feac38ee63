using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Machines;

/// <summary>A machine as the page shows it.</summary>
/// <param name="MediaEngine">What its media engine decodes, a line each; empty without one.</param>
public sealed record MachineView(
    string Id, string Name, MachineKind Kind, string Summary, string Processor, int Cores, int Threads, double? ClockGigahertz,
    string? Graphics, double? GraphicsMemoryGigabytes, string? MediaEngineName, IReadOnlyList<string> MediaEngine,
    double MemoryGigabytes, string? Drive, double? DriveMegabytesPerSecond, bool? Fanless, decimal? Price, string Currency)
{
    public static MachineView Of(Machine machine) => new(
        machine.Id, machine.Name, machine.Kind, machine.Summary, machine.Processor.Name, machine.Processor.Cores,
        machine.Processor.Threads, machine.Processor.ClockGigahertz, machine.Graphics?.Name, machine.Graphics?.MemoryGigabytes,
        machine.MediaEngine?.Name,
        [.. machine.MediaEngine?.Capabilities.Select(capability =>
            $"{capability.Codec.StandardName} {capability.Chroma.Notation} to {capability.MaxBitDepth} bit, up to {capability.MaxRaster}") ?? []],
        machine.Memory.Gigabytes, machine.MediaDrive?.Kind, machine.MediaDrive?.MegabytesPerSecond, machine.Cooling?.Fanless,
        machine.Price, Machine.Currency);
}

internal static class MachineEndpoints
{
    public static void MapMachines(this IEndpointRouteBuilder routes) =>
        routes.MapGet("/api/machines", async Task<Ok<MachineView[]>> (Bench bench) =>
                TypedResults.Ok((await bench.MachinesAsync()).Select(MachineView.Of).ToArray()))
            .WithName("listMachines").WithTags("Machines");
}
