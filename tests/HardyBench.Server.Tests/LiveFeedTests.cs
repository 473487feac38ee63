using HardyBench.Server.Live;
using Microsoft.AspNetCore.SignalR;

namespace HardyBench.Server.Tests;

/// <summary>What pages hear, and in which order.</summary>
public sealed class LiveFeedTests
{
    [Fact]
    public async Task Things_are_told_one_after_another_as_they_stand_when_their_turn_comes()
    {
        var (page, state) = (new Page(), 1);
        var feed = new LiveFeed(new Hub(page), Timeout.InfiniteTimeSpan);

        var first = feed.Tell(one => one.Making(View(state)));
        await page.Reached.Task;
        state = 2;
        var second = feed.Tell(one => one.Making(View(state)));
        state = 3;
        var third = feed.Tell(one => one.Making(View(state)));
        page.GoOn.SetResult();
        await Task.WhenAll(first, second, third);

        Assert.Equal([1, 3, 3], page.Heard);
    }

    [Fact]
    public async Task A_page_that_does_not_listen_does_not_hold_up_the_others_for_good()
    {
        var page = new Page();
        var feed = new LiveFeed(new Hub(page));

        await feed.Tell(one => one.Making(View(1)));
        await feed.Tell(one => one.Making(View(2)));

        Assert.Equal([1, 2], page.Heard);
    }

    [Fact]
    public async Task A_page_that_is_gone_keeps_nothing_from_the_others()
    {
        var page = new Page();
        page.GoOn.SetResult();
        var feed = new LiveFeed(new Hub(page));

        await Assert.ThrowsAsync<InvalidOperationException>(() => feed.Tell(_ => throw new InvalidOperationException()));
        await feed.Tell(one => one.Making(View(7)));

        Assert.Equal([7], page.Heard);
    }

    private static CreationView View(int done) => new(true, null, done, 9, 0, null, null);

    /// <summary>Is held up by the first thing that it hears.</summary>
    private sealed class Page : ILivePage
    {
        public TaskCompletionSource Reached { get; } = new();

        public TaskCompletionSource GoOn { get; } = new();

        public List<int> Heard { get; } = [];

        public async Task Making(CreationView making)
        {
            Heard.Add(making.Done);
            Reached.TrySetResult();
            await GoOn.Task;
        }

        public Task Play(PlayView? play) => Task.CompletedTask;

        public Task Judging(JudgingView judging) => Task.CompletedTask;

        public Task News(PlayNews news) => Task.CompletedTask;

        public Task Picture(PlayPicture picture) => Task.CompletedTask;

        public Task RunsChanged() => Task.CompletedTask;

        public Task Aids(CreationView making) => Task.CompletedTask;


        public Task Calibrating(CreationView making) => Task.CompletedTask;
    }

    private sealed class Hub(ILivePage page) : IHubContext<LiveHub, ILivePage>, IHubClients<ILivePage>
    {
        public IHubClients<ILivePage> Clients => this;

        public IGroupManager Groups => throw new NotSupportedException();

        public ILivePage All => page;

        public ILivePage AllExcept(IReadOnlyList<string> excludedConnectionIds) => page;

        public ILivePage Client(string connectionId) => page;

        ILivePage IHubClients<ILivePage>.Clients(IReadOnlyList<string> connectionIds) => page;

        public ILivePage Group(string groupName) => page;

        public ILivePage GroupExcept(string groupName, IReadOnlyList<string> excludedConnectionIds) => page;

        ILivePage IHubClients<ILivePage>.Groups(IReadOnlyList<string> groupNames) => page;

        public ILivePage User(string userId) => page;

        public ILivePage Users(IReadOnlyList<string> userIds) => page;
    }
}
