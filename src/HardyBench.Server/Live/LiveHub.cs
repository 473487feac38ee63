using System.Collections.Concurrent;
using System.Net;
using HardyBench.Server.Clips;
using HardyBench.Server.Plays;
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

    /// <summary>How far the making of clips is.</summary>
    Task Making(MakingView making);

    /// <summary>How far the rendering of passages is.</summary>
    Task Aids(MakingView making);
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

/// <summary>Sends to every open page.</summary>
public sealed class LiveFeed(IHubContext<LiveHub, ILivePage> hub)
{
    public ILivePage Pages => hub.Clients.All;
}
