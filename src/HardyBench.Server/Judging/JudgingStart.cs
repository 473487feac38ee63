using HardyBench.Server.Live;
using HardyBench.Server.Plays;
using HardyBench.Workbench;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

namespace HardyBench.Server.Judging;

/// <summary>Judges runs of earlier rules again while pages are open already, never beside something that is measured nor while a trial
/// waits to begin.</summary>
internal sealed class JudgingStart(Bench bench, ThisMachineInUse inUse, PlayDesk plays, LiveFeed live, ILogger<JudgingStart> log)
    : BackgroundService
{
    private static readonly TimeSpan BeforeNextTry = TimeSpan.FromMilliseconds(200), BetweenNews = TimeSpan.FromSeconds(1);

    private DateTime told;

    /// <summary>How far it is.</summary>
    public JudgingView Now { get; private set; } = new(0, 0);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        // The server answers first.
        await Task.Yield();
        try
        {
            await bench.JudgeAgainAsync(stoppingToken, Tell, TurnAsync);
        }
        catch (Exception failure) when (failure is not OperationCanceledException)
        {
            log.LogError(failure, "Judging runs again ended after {Done} of {Of}; it goes on after the next start", Now.Done, Now.Of);
            Now = new JudgingView(0, 0);
            _ = live.Tell(page => page.Judging(Now));
        }

        foreach (var run in bench.Unreadable)
        {
            log.LogWarning("{Why}", run.Why);
        }
    }

    private void Tell(int done, int of)
    {
        Now = new JudgingView(done, of);
        if (done < of && DateTime.UtcNow - told < BetweenNews)
        {
            return;
        }

        told = DateTime.UtcNow;
        _ = live.Tell(page => page.Judging(Now));
        if (done == of)
        {
            _ = live.Tell(page => page.RunsChanged());
        }
    }

    private async Task<IDisposable> TurnAsync(CancellationToken stop)
    {
        while (true)
        {
            // Taking one turn after another would leave no moment at which a trial of this machine could begin.
            if (plays.Queue is { Waiting: 0, Playing: null } && inUse.TryCompute() is { } turn)
            {
                return turn;
            }

            await Task.Delay(BeforeNextTry, stop);
        }
    }
}

internal static class JudgingEndpoints
{
    public static void MapJudging(this IEndpointRouteBuilder routes) => routes
        .MapGet("/api/judging", Ok<JudgingView> (JudgingStart judging) => TypedResults.Ok(judging.Now))
        .WithTags("Runs").WithName("judging").WithDescription("How many runs of earlier versions are judged again.");
}
