using System.Text.Json;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Formats.PlayerProtocol;
using HardyBench.Player.Decoding;
using HardyBench.Player.Effects;
using HardyBench.Player.Playing;
using HardyBench.Telemetry;

namespace HardyBench.PlayerHost;

/// <summary>Answers what it is asked, one line after another, until nobody asks any more.</summary>
internal sealed class Talk(Stream input, Stream output) : IDisposable
{
    private readonly Lock gate = new();
    private readonly SystemFiles system = SystemFiles.Live;
    private CancellationTokenSource stop = new();
    private Task playing = Task.CompletedTask;
    private volatile bool isPlaying;

    /// <returns>The exit code.</returns>
    public async Task<int> RunAsync()
    {
        Tell(new PlayerEvent { Hello = Greetings.Say() });
        var lines = new BoundedLines(input);
        while (await lines.ReadAsync(CancellationToken.None) is { } line)
        {
            Hear(PlayerTalk.Read(line.Span, PlayerTalk.Asks));
        }

        // Who asked is gone, and with it the reason to go on. What still decodes is ended with the process.
        return 0;
    }

    public void Dispose() => stop.Dispose();

    private void Hear(PlayerRequest ask)
    {
        if (ask.Stop)
        {
            stop.Cancel();
        }
        else if (ask.Devices)
        {
            _ = Answer(() => Tell(new PlayerEvent { Devices = Devices.On(SystemFiles.Live) }));
        }
        else if (ask.Play is { } play)
        {
            if (isPlaying)
            {
                Tell(Unexpected("Something is already playing."));
                return;
            }

            // The one before has reported its end, so it is over in a moment, however busy the machine is.
            playing.Wait();
            stop.Dispose();
            stop = new CancellationTokenSource();
            isPlaying = true;
            playing = Answer(() => PlayAsync(play, stop.Token).GetAwaiter().GetResult(), over: () => isPlaying = false);
        }
    }

    private async Task PlayAsync(StartPlay ask, CancellationToken stopped)
    {
        var files = new ProvidedClips(ask.Clips, id => Tell(new PlayerEvent { Opens = id }));
        var player = new LocalPlayback(
            files, new EffectFilters(ask.Effects.Looks, ask.Effects.Font), system, TimeProvider.System, ask.DataFolder,
            pagesHere: ask.PagesHere, owner: Greetings.Owner);
        var run = await player.PlayAsync(ask.Plan, new Reporter(this), stopped);
        // Whoever hears of the end may ask for the next at once.
        isPlaying = false;
        Tell(new PlayerEvent { Ended = run.Ending });
    }

    /// <param name="over">Called before a failure is reported.</param>
    private Task Answer(Action work, Action? over = null) => Task.Run(() =>
    {
        try
        {
            work();
        }
        catch (Exception failure)
        {
            over?.Invoke();
            Tell(new PlayerEvent { Failed = Failures.Of(failure) });
        }
    });

    private static PlayerEvent Unexpected(string words) => new() { Failed = new PlayerFailure(PlayerFailureKind.Unexpected, words) };

    private void Tell(PlayerEvent told)
    {
        lock (gate)
        {
            try
            {
                PlayerTalk.Write(output, told, PlayerTalk.Tells);
            }
            catch (IOException)
            {
                // Nobody listens: the line that ends the talk is not far.
            }
        }
    }

    private sealed class Reporter(Talk talk) : IRunObserver
    {
        public void Started(RunHeader header) => talk.Tell(new PlayerEvent { Started = header });

        public void Progressed(RunProgress progress) => talk.Tell(new PlayerEvent { Progressed = progress });

        public void Pictured(int frame, byte[] jpeg) => talk.Tell(new PlayerEvent { Pictured = new SentPicture(frame, jpeg) });
    }
}

/// <summary>Clips whose files were handed with the plan.</summary>
/// <param name="opens">Told of every clip before its file is opened.</param>
internal sealed class ProvidedClips(IReadOnlyDictionary<string, ClipPlace> places, Action<string> opens) : IClipFiles
{
    public string PathOf(Clip clip)
    {
        opens(clip.Id);
        var place = places.GetValueOrDefault(clip.Id);
        return place?.Path ?? throw new MediaException(place?.Missing ?? $"The file of {clip.Title} was not stated.");
    }
}
