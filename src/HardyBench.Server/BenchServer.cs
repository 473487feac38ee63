using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using HardyBench.Formats.Json;
using HardyBench.Server.Advice;
using HardyBench.Server.Aids;
using HardyBench.Server.Calibration;
using HardyBench.Server.Clips;
using HardyBench.Server.Comparing;
using HardyBench.Server.Deleted;
using HardyBench.Server.Guard;
using HardyBench.Server.Health;
using HardyBench.Server.Judging;
using HardyBench.Server.Live;
using HardyBench.Server.Machines;
using HardyBench.Server.Plays;
using HardyBench.Server.Programs;
using HardyBench.Server.Runs;
using HardyBench.Server.Timelines;
using HardyBench.Server.Trials;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.FileProviders;
using Microsoft.Extensions.Hosting;
using Scalar.AspNetCore;
using Serilog;
using Serilog.Events;

namespace HardyBench.Server;

/// <summary>The whole product in one process: API, live hub and the built page.</summary>
public static class BenchServer
{
    /// <summary>A server that only this machine can reach.</summary>
    /// <param name="url">Where to listen.</param>
    public static WebApplication Create(Bench bench, string url, bool demo = false) => Create(bench, Listening.Here(url), demo);

    /// <param name="demo">Whether to make missing clips and play the stand-ins as soon as it runs.</param>
    /// <param name="rehearse">Whether to play once unseen soon after the start.</param>
    public static WebApplication Create(Bench bench, Listening listening, bool demo = false, bool rehearse = false)
    {
        var builder = WebApplication.CreateBuilder(new WebApplicationOptions { ContentRootPath = AppContext.BaseDirectory });
        builder.WebHost.UseUrls(listening.Url);
        builder.WebHost.ConfigureKestrel(server =>
        {
            server.AddServerHeader = false;
            server.ConfigureHttpsDefaults(https => https.ServerCertificate = listening.Certificate);
        });
        builder.Host.UseSerilog((_, log) => log.MinimumLevel.Information()
            .MinimumLevel.Override("Microsoft", LogEventLevel.Warning)
            .MinimumLevel.Override("System", LogEventLevel.Warning)
            .WriteTo.Console(formatProvider: null));
        AddServices(builder.Services, bench, demo);
        if (rehearse)
        {
            builder.Services.AddHostedService<RehearsalStart>();
        }

        var app = builder.Build();
        Map(app, listening);
        app.Lifetime.ApplicationStarted.Register(() => _ = bench.Players.WarmAsync());
        return app;
    }

    private static void AddServices(IServiceCollection services, Bench bench, bool demo)
    {
        services.AddSingleton(bench);
        var pages = new PagesHere();
        bench.Plays.PagesHere = () => pages.Count;
        bench.Calibrations.PagesHere = () => pages.Count;
        services.AddSingleton(pages);
        services.AddSingleton(TimeProvider.System);
        services.AddSingleton<LiveFeed>();
        services.AddSingleton<ThisMachineInUse>();
        services.AddSingleton<PlayDesk>();
        services.AddSingleton<AdviceDesk>();
        services.AddSingleton<AnswerDesk>();
        services.AddHostedService(provider => provider.GetRequiredService<PlayDesk>());
        services.AddSingleton<ClipDesk>();
        services.AddSingleton<AidDesk>();
        services.AddSingleton<CalibrationDesk>();
        // Setting out the demo is no reason to take the page down.
        services.Configure<HostOptions>(options => options.BackgroundServiceExceptionBehavior = BackgroundServiceExceptionBehavior.Ignore);
        if (demo)
        {
            services.AddHostedService<DemoStart>();
        }

        services.ConfigureHttpJsonOptions(options =>
        {
            foreach (var converter in BenchJson.Options.Converters)
            {
                options.SerializerOptions.Converters.Add(converter);
            }

            options.SerializerOptions.TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { BenchJson.DemandKind } };
            options.SerializerOptions.AllowOutOfOrderMetadataProperties = true;
            // A misspelt member is refused instead of ignored.
            options.SerializerOptions.UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow;
            options.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
            options.SerializerOptions.RespectNullableAnnotations = true;
            options.SerializerOptions.RespectRequiredConstructorParameters = true;
            options.SerializerOptions.IgnoreReadOnlyProperties = true;
        });
        services.AddSignalR().AddJsonProtocol(options =>
        {
            foreach (var converter in BenchJson.Options.Converters)
            {
                options.PayloadSerializerOptions.Converters.Add(converter);
            }
        });
        services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
        services.AddHostedService<UploadSweep>();
        services.AddSingleton<JudgingStart>();
        services.AddHostedService(provider => provider.GetRequiredService<JudgingStart>());
        services.AddProblemDetails();
        services.AddExceptionHandler<Problems>();
        services.AddOpenApi(options => options
            .AddDocumentTransformer((document, _, _) =>
            {
                document.Info.Title = "Hardy Bench";
                document.Servers = [];
                return Task.CompletedTask;
            })
            .AddSchemaTransformer(ValueSchemas.Describe));
    }

    private static void Map(WebApplication app, Listening listening)
    {
        var page = Path.Combine(AppContext.BaseDirectory, "wwwroot");
        app.UseExceptionHandler();
        AnswerHeaders.Use(app, Path.Combine(page, "index.html"));
        new RequestGuard(listening.Hosts).Use(app);
        listening.Token?.Use(app);
        app.UseStatusCodePages();
        app.MapOpenApi();
        app.MapScalarApiReference("/reference", options => options.DisableDefaultFonts());
        app.MapMachines();
        app.MapPrograms();
        app.MapBriefs();
        app.MapParts();
        app.MapComparisons();
        app.MapClips();
        app.MapUploads();
        app.MapTimelines();
        app.MapAids();
        app.MapCalibration();
        app.MapJudging();
        app.MapPlays();
        app.MapTrials();
        app.MapRuns();
        app.MapDeleted();
        app.MapHealth();
        app.MapHub<LiveHub>("/live");
        MapPage(app, page);
    }

    private static void MapPage(WebApplication app, string page)
    {
        if (!Directory.Exists(page))
        {
            app.MapGet("/", () => Results.Problem(
                "The page is not built. Run 'make demo', which builds it; the API works meanwhile.",
                statusCode: StatusCodes.Status503ServiceUnavailable
            )
            );
            return;
        }

        var files = new PhysicalFileProvider(page);
        app.UseStaticFiles(new StaticFileOptions { FileProvider = files });
        // For what is read only: a body of a wrong type must not be answered as an address that is not there.
        app.MapGet("/api/{**rest}", () => TypedResults.NotFound()).ExcludeFromDescription().WithOrder(int.MaxValue);
        app.MapFallbackToFile("index.html", new StaticFileOptions { FileProvider = files });
    }
}
