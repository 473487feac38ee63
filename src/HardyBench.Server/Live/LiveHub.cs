using System.Collections.Concurrent;
using System.Net;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.SignalR;

namespace HardyBench.Server.Live;

/// <summary>What open pages hear.</summary>
public interface ILivePage
{
    /// <summary>A play began, went on or ended; null when nothing plays.</summary>
    Task Play(PlayView? play);

    /// <summary>What a play has brought since the last message.</summary>
    Task News(PlayNews news);

    /// <summary>A small picture of the screen.</summary>
    Task Picture(PlayPicture picture);

    /// <summary>Runs have come or gone without a play that pages saw.</summary>
    Task RunsChanged();

    /// <summary>How many runs are judged again by changed rules.</summary>
    Task Judging(JudgingView judging);

    /// <summary>How far the making of clips is.</summary>
    Task Making(CreationView making);

    /// <summary>How far the rendering of passages is.</summary>
    Task Aids(CreationView making);

    /// <summary>How far the measuring of this machine is.</summary>
    Task Calibrating(CreationView making);
}

/// <summary>Pages only listen; everything they want done goes through the API.</summary>
public sealed class LiveHub(PagesHere pages) : Hub<ILivePage>
{
    public override Task OnConnectedAsync()
    {
        pages.Came(Context.ConnectionId, Context.GetHttpContext()?.Connection);
        return base.OnConnectedAsync();
    }

    public override Task OnDisconnectedAsync(Exception? exception)
    {
        pages.Left(Context.ConnectionId);
        return base.OnDisconnectedAsync(exception);
    }
}

/// <summary>Counts the pages that are open on this machine itself, where drawing them takes some of what is measured.</summary>
public sealed class PagesHere
{
    private readonly ConcurrentDictionary<string, bool> open = [];

    public int Count => open.Count;

    /// <param name="from">Where the page is; null counts nothing.</param>
    public void Came(string id, ConnectionInfo? from)
    {
        if (from?.RemoteIpAddress is { } address && (IPAddress.IsLoopback(address) || address.Equals(from.LocalIpAddress)))
        {
            open[id] = true;
        }
    }

    public void Left(string id) => open.TryRemove(id, out _);
}

/// <summary>Tells every open page, one thing after another.</summary>
/// <param name="patience">A page that does not take its events keeps the others waiting no longer than this; null for a tenth of a
/// second.</param>
public sealed class LiveFeed(IHubContext<LiveHub, ILivePage> hub, TimeSpan? patience = null)
{
    private readonly TimeSpan patience = patience ?? TimeSpan.FromMilliseconds(100);
    private readonly Lock gate = new();
    private Task last = Task.CompletedTask;

    /// <summary>Sends an event after all earlier events. The state is read then and not now: otherwise what
    /// is sent last could be older than what is sent before it, and a page would stay with it.</summary>
    public Task Tell(Func<ILivePage, Task> what)
    {
        lock (gate)
        {
            return last = AfterAsync(last, what);
        }
    }

    private async Task AfterAsync(Task before, Func<ILivePage, Task> what)
    {
        await before.ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing | ConfigureAwaitOptions.ForceYielding);
        var telling = what(hub.Clients.All);
        if (await Task.WhenAny(telling, Task.Delay(patience)) == telling)
        {
            await telling;
        }
    }
}
