using System.Text;
using System.Text.Json.Serialization;
using HardyBench.Core;
using HardyBench.Core.Findings;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Timelines;
using HardyBench.Core.Timelines.Building;
using HardyBench.Core.Timelines.Effects;
using HardyBench.Formats.Advice;
using HardyBench.Formats.Interchange;
using HardyBench.Formats.Timelines;
using HardyBench.Media.EffectFiles;
using HardyBench.Store;
using HardyBench.Workbench;
using HardyBench.Workbench.Timelines;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Routing;

namespace HardyBench.Server.Timelines;

/// <summary>A timeline with the version it was read or kept at, and what is to be known of each passage.</summary>
public sealed record TimelineDocument(int Version, Timeline Timeline, IReadOnlyList<PassageReview> Review);

/// <summary>A timeline to be kept.</summary>
/// <param name="Version">The version it was read at.</param>
/// <remarks>A document that was read can be sent back as it is: what it says besides is ignored.</remarks>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Skip)]
public sealed record TimelineChange(int Version, Timeline Timeline);

/// <summary>A timeline to be begun.</summary>
/// <param name="LikeClip">A clip to take raster, rate and depth from.</param>
/// <param name="CopyOf">A timeline to begin with; null for an empty one.</param>
public sealed record NewTimeline(string Title, string? LikeClip = null, Timeline? CopyOf = null);

/// <summary>A series to be built for a timeline of this rate.</summary>
public sealed record SeriesRequest(FrameRate Rate, Series Series);

/// <summary>A timeline to be written that stands for a week's work.</summary>
public sealed record WeekRequest(string Title, IReadOnlyList<WeekRow> Rows);

/// <summary>What an edit decision list can be counted in, rates as "30000/1001".</summary>
/// <param name="Why">What speaks for the likely one.</param>
public sealed record EdlRateView(string Likely, string Why, IReadOnlyList<RateView> Possible)
{
    public static EdlRateView Of(EdlRate rate) => new(RateView.Of(rate.Likely).Rate, rate.Why, [.. rate.Possible.Select(RateView.Of)]);
}

/// <summary>A rate, and how people write it.</summary>
public sealed record RateView(string Rate, string Name)
{
    public static RateView Of(FrameRate rate) => new(FormattableString.Invariant($"{rate.Numerator}/{rate.Denominator}"), rate.ToString());
}

internal static class TimelineEndpoints
{
    public static void MapTimelines(this IEndpointRouteBuilder routes)
    {
        var timelines = routes.MapGroup("/api/timelines").WithTags("Timelines");
        timelines.MapGet("/", async Task<Ok<TimelineView[]>> (Bench bench) =>
            TypedResults.Ok((await bench.Timelines.AllAsync()).Select(timeline => TimelineView.Of(timeline, bench.Clips.Clips)).ToArray()))
            .WithName("listTimelines");
        timelines.MapGet("/{id}/sheet", SheetAsync).ProducesProblem(StatusCodes.Status404NotFound).WithName("sheet");
        timelines.MapGet("/{id}/advice", async Task<Ok<PickDocument>> (string id, Bench bench) =>
                TypedResults.Ok(PickDocument.Of(id, await bench.Advice.AdviseAsync(id))))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("advice");
        timelines.MapPost("/{id}/advice", async Task<Ok<PickDocument>> (string id, AdviceDesk desk, CancellationToken stop) =>
                TypedResults.Ok(PickDocument.Of(id, await desk.AdviseAsync(id, stop))))
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("playForAdvice");
        timelines.MapPut("/{id}/machines", async Task<NoContent> (string id, [FromBody] string[] ids, Bench bench) =>
            {
                await bench.Timelines.FindAsync(id);
                await bench.Machines.ShowAsync(id, ids);
                return TypedResults.NoContent();
            })
            .ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("showMachines");
        MapWriting(timelines);
        MapInterchange(timelines);
        var looks = routes.MapGroup("/api/looks").WithTags("Timelines");
        looks.MapGet("/", Ok<IReadOnlyList<string>> (Bench bench) => TypedResults.Ok(Looks.In(bench.Folder.Looks))).WithName("looks");
        looks.MapPost("/", async Task<Ok<string>> (string name, HttpRequest request, Bench bench) =>
            {
                using var reader = new StreamReader(request.Body, Encoding.UTF8);
                return TypedResults.Ok(Looks.Add(bench.Folder.Looks, name, await reader.ReadToEndAsync()));
            })
            .Accepts<Stream>("application/octet-stream").ProducesProblem(StatusCodes.Status422UnprocessableEntity).WithName("addLook");
        routes
            .MapGet("/api/effects", Ok<IReadOnlyList<EffectKind>> () => TypedResults.Ok(EffectCatalogue.All))
            .WithTags("Timelines")
            .WithName("effects");
    }

    private static void MapWriting(RouteGroupBuilder timelines)
    {
        timelines.MapGet("/{id}", async Task<Ok<TimelineDocument>> (string id, Bench bench) =>
                TypedResults.Ok(Document(await bench.Timelines.FindAsync(id), bench)))
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("timeline");
        timelines.MapPost("/", async Task<Ok<TimelineDocument>> (NewTimeline wanted, Bench bench) => TypedResults.Ok(Document(
                wanted.CopyOf is { } copy
                    ? await bench.Timelines.AddAsync(TimelineLimits.Checked(copy) with { Title = wanted.Title })
                    : await bench.Timelines.CreateAsync(wanted.Title, wanted.LikeClip), bench)))
            .WithName("createTimeline");
        timelines.MapPut("/{id}", async Task<Ok<TimelineDocument>> (string id, TimelineChange change, Bench bench) =>
            {
                var timeline = change.Timeline with { Id = id };
                return TypedResults.Ok(
                    Document(new StoredTimeline(timeline, await bench.Timelines.KeepAsync(timeline, change.Version)), bench)
                );
            })
            .ProducesProblem(StatusCodes.Status409Conflict).WithName("keepTimeline");
        timelines.MapDelete("/{id}", async Task<NoContent> (string id, Bench bench) =>
            {
                await bench.Timelines.DeleteAsync(id);
                return TypedResults.NoContent();
            }).WithName("deleteTimeline");
        timelines.MapPost("/week", async Task<Ok<TimelineDocument>> (WeekRequest week, Bench bench) =>
                TypedResults.Ok(Document(await bench.Timelines.WriteWeekAsync(week.Title, week.Rows), bench)))
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity).WithName("writeWeek");
        timelines.MapPost("/series", Ok<IReadOnlyList<Passage>> (SeriesRequest request, Bench bench) =>
                TypedResults.Ok(bench.Timelines.Build(request.Series, request.Rate)))
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity).WithName("buildSeries");
    }

    private static void MapInterchange(RouteGroupBuilder timelines)
    {
        timelines.MapPost("/import", async Task<Ok<ImportOutcome>> (
                string name, string? rate, HttpRequest request, Bench bench, CancellationToken stop) =>
            {
                using var reader = new StreamReader(request.Body, Encoding.UTF8);
                var text = await reader.ReadToEndAsync(stop);
                return TypedResults.Ok(await bench.Timelines.ImportAsync(name, text, rate is null ? null : Rates.Parse(rate), stop));
            })
            .Accepts<Stream>("application/octet-stream")
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithName("importTimeline");
        timelines.MapPost("/import/rate", async Task<Ok<EdlRateView>> (HttpRequest request) =>
            {
                using var reader = new StreamReader(request.Body, Encoding.UTF8);
                return TypedResults.Ok(EdlRateView.Of(EdlRate.Of(await reader.ReadToEndAsync())));
            })
            .Accepts<Stream>("application/octet-stream").ProducesProblem(StatusCodes.Status422UnprocessableEntity).WithName("importRate");
        timelines.MapGet("/{id}/export", async Task<FileContentHttpResult> (string id, string format, Bench bench, HttpResponse response) =>
            {
                var (text, notes) = await bench.Timelines.ExportAsync(id, format);
                response.Headers.Append("X-Not-Carried", string.Join(' ', notes.Select(Uri.EscapeDataString)));
                return TypedResults.File(Encoding.UTF8.GetBytes(text), "application/octet-stream", $"{id}.{format}");
            })
            .ProducesProblem(StatusCodes.Status404NotFound).WithName("exportTimeline");
    }

    private static TimelineDocument Document(StoredTimeline stored, Bench bench) =>
        new(stored.Version, stored.Timeline, bench.Timelines.Review(stored.Timeline));

    /// <summary>A run of each machine at a preview scale.</summary>
    /// <param name="run">Runs that a person picked, each for the column that it belongs to.</param>
    private static async Task<Ok<SheetView>> SheetAsync(string id, Bench bench, long[] run, string scale = "full")
    {
        var wanted = Enum.TryParse<PreviewScale>(scale, ignoreCase: true, out var known) && Enum.IsDefined(known)
            ? known
            : throw new UnknownThingException(
                "preview scale",
                scale,
                Enum.GetNames<PreviewScale>().Select(name => name.ToLowerInvariant())
            );
        var sheet = await bench.Sheets.OfAsync(id, wanted, run);
        return TypedResults.Ok(new SheetView(
            TimelineView.Of(sheet.Timeline, bench.Clips.Clips), [.. sheet.Columns.Select(column => ColumnView.Of(column))]));
    }
}
