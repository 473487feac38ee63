using HardyBench.Server.Clips;
using HardyBench.Server.Plays;
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
public sealed class LiveHub : Hub<ILivePage>;

/// <summary>Sends to every open page.</summary>
public sealed class LiveFeed(IHubContext<LiveHub, ILivePage> hub)
{
    public ILivePage Pages => hub.Clients.All;
}
