using HardyBench.Core.Machines;
using HardyBench.Core.Playback;
using HardyBench.Formats.PlayerProtocol;

namespace HardyBench.Workbench.Playing;

/// <summary>Player processes. One waits, so that a play begins at once; one that ended, hung or was stopped is not used again.</summary>
public sealed class Players(PlayerProgram program) : IDisposable
{
    private readonly Lock gate = new();
    private readonly CancellationTokenSource over = new();
    private readonly HashSet<PlayerProcess> all = [];
    private PlayerProcess? waiting;
    private Task warming = Task.CompletedTask;
    private IReadOnlyList<Device>? devices;

    /// <summary>Ids of the processes that run now.</summary>
    public IReadOnlyList<int> Processes
    {
        get
        {
            lock (gate)
            {
                return [.. all.Where(player => player.IsAlive).Select(player => player.Id)];
            }
        }
    }

    /// <summary>What the one that started last said of itself; null before the first.</summary>
    public PlayerGreeting? Greeting { get; private set; }

    /// <summary>Has one wait, if none does. Does nothing where none can be started: the first who wants one hears why.</summary>
    public Task WarmAsync()
    {
        lock (gate)
        {
            if (waiting is null && warming.IsCompleted && !over.IsCancellationRequested)
            {
                warming = Task.Run(async () =>
                {
                    try
                    {
                        GiveBack(await StartAsync([], over.Token));
                    }
                    catch (Exception failure) when (failure is PlayerUnavailableException or OperationCanceledException)
                    {
                    }
                });
            }

            return warming;
        }
    }

    /// <summary>Takes one, to be given back or let go.</summary>
    /// <param name="files">What it will read.</param>
    /// <exception cref="PlayerUnavailableException">None can be started, or the media libraries are missing.</exception>
    public async Task<PlayerProcess> TakeAsync(IReadOnlyList<string> files, CancellationToken stop)
    {
        var unreached = program.Unreached(files);
        var player = unreached.Count == 0 ? await WaitingAsync(stop) : null;
        player ??= await StartAsync(unreached, stop);
        if (player.Greeting.Problem is { } problem)
        {
            Release(player);
            throw new PlayerUnavailableException(problem);
        }

        return player;
    }

    /// <summary>Gives one back that has done what it was asked.</summary>
    public void GiveBack(PlayerProcess player)
    {
        lock (gate)
        {
            if (waiting is null && player.IsAlive && !over.IsCancellationRequested)
            {
                waiting = player;
                return;
            }
        }

        Release(player);
    }

    /// <summary>Ends one.</summary>
    public void Release(PlayerProcess player)
    {
        player.Dispose();
        lock (gate)
        {
            all.Remove(player);
        }
    }

    /// <summary>The devices that decoding and effects can be asked to run on, looked for once.</summary>
    /// <exception cref="PlayerUnavailableException">There is no player.</exception>
    public async Task<IReadOnlyList<Device>> DevicesAsync(CancellationToken stop)
    {
        if (devices is not null)
        {
            return devices;
        }

        // Drivers of devices load much and may crash, so a process of its own looks and ends.
        var player = await StartAsync([], stop);
        try
        {
            player.Ask(new PlayerRequest { Devices = true });
            while (await player.ReceiveAsync(stop) is { } told)
            {
                if (told.Devices is { } found)
                {
                    return devices = found;
                }

                if (told.Failed is { } failure)
                {
                    throw new PlayerUnavailableException(failure.Words);
                }
            }

            throw new PlayerUnavailableException($"The player ended while looking for devices: {player.WaitForEnd()}.");
        }
        finally
        {
            Release(player);
        }
    }

    public void Dispose()
    {
        over.Cancel();
        warming.Wait(TimeSpan.FromSeconds(5));
        PlayerProcess[] running;
        lock (gate)
        {
            running = [.. all];
        }

        Array.ForEach(running, Release);
        over.Dispose();
    }

    private async Task<PlayerProcess?> WaitingAsync(CancellationToken stop)
    {
        await warming.WaitAsync(stop);
        PlayerProcess? player;
        lock (gate)
        {
            (player, waiting) = (waiting, null);
        }

        if (player is null or { IsAlive: true })
        {
            return player;
        }

        Release(player);
        return null;
    }

    private async Task<PlayerProcess> StartAsync(IReadOnlyList<string> more, CancellationToken stop)
    {
        var player = await PlayerProcess.StartAsync(program, more, stop);
        lock (gate)
        {
            all.Add(player);
        }

        Greeting = player.Greeting;
        return player;
    }
}
