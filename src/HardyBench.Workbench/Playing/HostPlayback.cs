using System.Text.Json;
using HardyBench.Core.Footage;
using HardyBench.Core.Playback;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Formats.PlayerProtocol;

namespace HardyBench.Workbench.Playing;

/// <summary>Plays a plan on this machine in a process apart, so that a clip that ends the player ends nothing else.</summary>
/// <param name="dataFolder">Where the run will be kept.</param>
/// <param name="pagesHere">Pages of the product that are open on this machine; null where nobody knows.</param>
/// <param name="standsStill">A player that delivered no slot and no requested picture for so long is ended; null for the usual time.</param>
public sealed class HostPlayback(
    Players players, IClipFiles files, EffectPlaces effects, string dataFolder, int? pagesHere, TimeSpan? standsStill = null) : IPlayback
{
    /// <summary>A player that was asked to stop has so long before it is ended.</summary>
    public static readonly TimeSpan LongestStop = TimeSpan.FromSeconds(2);

    /// <summary>The longest reading of a file, and the longest frame that anybody would wait for, take less.</summary>
    private static readonly TimeSpan StandsStill = TimeSpan.FromSeconds(90);

    /// <inheritdoc />
    /// <exception cref="PlayerUnavailableException">There is no player, or the media libraries are missing.</exception>
    /// <exception cref="PlanRefusedException">The timeline cannot be played as it stands.</exception>
    public async Task<Run> PlayAsync(PlaybackPlan plan, IRunObserver observer, CancellationToken stop)
    {
        var clips = PlacesOf(plan.Checked(), files);
        var player = await players.TakeAsync([.. clips.Values.Select(place => place.Path).OfType<string>()], stop);
        var course = new Course(plan, observer);
        var asked = stop.Register(() => StopSoon(player));
        var state = Afterwards.InDoubt;
        Watch? watch = null;
        try
        {
            Ask(player, new PlayerRequest { Play = new StartPlay(plan, clips, effects, dataFolder, pagesHere) });
            while (await ReceiveAsync(player) is { } told)
            {
                // Before it begins it may have to read much, as when footage is warmed.
                watch ??= told.Started is null ? null : new Watch(player, standsStill ?? StandsStill);
                if (course.Hear(told))
                {
                    watch?.Seen();
                }

                if (told.Failed is { } failure)
                {
                    state = failure.Kind == PlayerFailureKind.Unexpected ? Afterwards.InDoubt : Afterwards.Ready;
                    stop.ThrowIfCancellationRequested();
                    throw Course.Of(failure);
                }

                if (course.Ending is { } ending)
                {
                    state = ending == RunEnding.Finished ? Afterwards.Ready : Afterwards.InDoubt;
                    return course.ToRun(ending);
                }
            }

            state = Afterwards.Gone;
        }
        finally
        {
            watch?.Dispose();
            await asked.DisposeAsync();
            // One that was asked to stop may hear of it only now, or be ended in a moment: it plays nothing more.
            if (state == Afterwards.Ready && !stop.IsCancellationRequested)
            {
                players.GiveBack(player);
            }
            else
            {
                course.HowItEnded = state == Afterwards.Gone ? player.WaitForEnd() : string.Empty;
                players.Release(player);
                _ = players.WarmAsync();
            }
        }

        return course.Broken(stop.IsCancellationRequested);
    }

    /// <summary>What a player is good for when a run is over.</summary>
    private enum Afterwards
    {
        /// <summary>It can play the next.</summary>
        Ready,

        /// <summary>It was stopped, or something in it went wrong: what of it still works is ended with it.</summary>
        InDoubt,

        /// <summary>It has ended without help.</summary>
        Gone,
    }

    /// <summary>Where the clips of a plan lie.</summary>
    internal static Dictionary<string, ClipPlace> PlacesOf(PlaybackPlan plan, IClipFiles files) =>
        plan.PlayedClipIds.ToDictionary(id => id, id => PlaceOf(plan.Clips[id], files));

    private static ClipPlace PlaceOf(Clip clip, IClipFiles files)
    {
        try
        {
            return new ClipPlace(files.PathOf(clip));
        }
        catch (MediaException missing)
        {
            return new ClipPlace(null, missing.Message);
        }
    }

    /// <summary>Says something to a player that may be gone, which then shows in its saying nothing more.</summary>
    private static void Ask(PlayerProcess player, PlayerRequest ask)
    {
        try
        {
            player.Ask(ask);
        }
        catch (Exception gone) when (gone is IOException or ObjectDisposedException or InvalidOperationException)
        {
        }
    }

    /// <summary>The next that a player says; null when it says nothing more. One that makes no sense any more is as good as gone.</summary>
    private static async Task<PlayerEvent?> ReceiveAsync(PlayerProcess player)
    {
        try
        {
            return await player.ReceiveAsync(CancellationToken.None);
        }
        catch (Exception senseless) when (senseless is IOException or JsonException or InvalidDataException)
        {
            player.Kill();
            return null;
        }
    }

    private static void StopSoon(PlayerProcess player)
    {
        Ask(player, new PlayerRequest { Stop = true });
        _ = Task.Delay(LongestStop).ContinueWith(_ => player.Kill(), TaskScheduler.Default);
    }

    /// <summary>Ends a player that stands still.</summary>
    private sealed class Watch : IDisposable
    {
        private readonly TimeSpan longest;
        private readonly Timer timer;

        public Watch(PlayerProcess player, TimeSpan longest)
        {
            this.longest = longest;
            timer = new Timer(_ => player.Kill(), null, longest, Timeout.InfiniteTimeSpan);
        }

        public void Seen() => timer.Change(longest, Timeout.InfiniteTimeSpan);

        public void Dispose() => timer.Dispose();
    }

    /// <summary>What came of a run so far.</summary>
    private sealed class Course(PlaybackPlan plan, IRunObserver observer)
    {
        private readonly RunJournal journal = new();
        private RunHeader? header;
        private int newest = -1;
        private int lags;
        private string? lastOpened;

        public RunEnding? Ending { get; private set; }

        public string HowItEnded { get; set; } = string.Empty;

        public static Exception Of(PlayerFailure failure) => failure.Kind switch
        {
            PlayerFailureKind.Refused => new PlanRefusedException(failure.Words),
            PlayerFailureKind.Unavailable => new PlayerUnavailableException(failure.Words),
            _ => new MediaException(failure.Words),
        };

        /// <returns>Whether it went on by that.</returns>
        public bool Hear(PlayerEvent told)
        {
            switch (told)
            {
                case { Opens: { } clip }:
                    lastOpened = clip;
                    return true;
                case { Started: { } started }:
                    header = started;
                    observer.Started(started);
                    return true;
                case { Progressed: { } news }:
                    journal.Add(news);
                    lags += news.Lags.Count;
                    newest = news.Frames.Select(frame => frame.Frame).Append(newest).Max();
                    observer.Progressed(news);
                    return news.Frames.Count + news.Lags.Count + news.Failures.Count > 0;
                case { Pictured: { } picture }:
                    observer.Pictured(picture.Frame, picture.Jpeg);
                    return false;
                case { Ended: { } ending }:
                    Ending = ending;
                    return true;
                default:
                    return false;
            }
        }

        public Run ToRun(RunEnding ending) => journal.ToRun(header!, ending);

        /// <summary>The run of a player that is gone: what came until then.</summary>
        /// <exception cref="MediaException">It was gone before it began to play.</exception>
        /// <exception cref="OperationCanceledException">It was stopped before it began to play.</exception>
        public Run Broken(bool stopped)
        {
            if (header is null)
            {
                throw stopped
                    ? new OperationCanceledException()
                    : new MediaException(
                        $"The player ended before it began to play ({HowItEnded}){(lastOpened is null ? string.Empty : $", at {TitleOf(lastOpened)}")}. Nothing was saved."
                    );
            }

            if (stopped)
            {
                return ToRun(RunEnding.Stopped);
            }

            var at = plan.Timeline.PassageIndexAt(plan.Moves is { } moves ? NextPlace(moves) : newest + 1);
            var playing = plan.Played(at).Layers.Select(layer => layer.ClipId).Distinct().ToList();
            var suspects = string.Join(
                " or ",
                (lastOpened is null || playing.Contains(lastOpened) ? playing : [.. playing, lastOpened]).Select(TitleOf)
            );
            var failure = new PassageFailure(
                at,
                $"The player ended in passage {at + 1} ({HowItEnded}), at {suspects}. What was played until then is saved. Play "
                    + "without that clip, or make or import the clip again."
            );
            Hear(new PlayerEvent { Progressed = new RunProgress([], [], [failure]) });
            return ToRun(RunEnding.CutShort);
        }

        /// <summary>The frame that was requested when no more was heard.</summary>
        private long NextPlace(IReadOnlyList<Gesture> moves)
        {
            var places = moves.SelectMany(move => move.Frames).ToList();
            return places[Math.Min(lags, places.Count - 1)];
        }

        private string TitleOf(string id) => $"“{plan.Clips.GetValueOrDefault(id)?.Title ?? id}”";
    }
}
