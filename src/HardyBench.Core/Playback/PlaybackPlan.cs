using System.Text.Json.Serialization;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.Playback.Exports;
using HardyBench.Core.Playback.Gestures;
using HardyBench.Core.Playback.Subjects;
using HardyBench.Core.Timelines;

namespace HardyBench.Core.Playback;

/// <summary>Everything that decides a run before it starts: what is played, on what, how.</summary>
public sealed record PlaybackPlan(
    Timeline Timeline, IReadOnlyDictionary<string, Clip> Clips, Machine Machine, PlaybackSettings Settings)
{
    /// <summary>What is measured.</summary>
    public Subject Subject { get; init; } = Subject.Play;

    /// <summary>The places that are requested; null where it is not scrubbed or started by hand.</summary>
    [JsonIgnore]
    public IReadOnlyList<Gesture>? Moves => (Subject as ByHand)?.Moves;

    /// <summary>What is written; null where the timeline is shown.</summary>
    [JsonIgnore]
    public Export? Export => Subject as Export;

    /// <summary>Passages, by place from 0, that are played from something rendered before; null for none.</summary>
    public IReadOnlyDictionary<int, Passage>? Rendered { get; init; }

    /// <summary>For a real machine: the devices that decode, by clip id and FFmpeg's name; clips without one are decoded on the
    /// processor.</summary>
    [JsonIgnore]
    public IReadOnlyDictionary<string, string>? Decoders { get; init; }

    /// <summary>The device that decodes a clip; null for the processor.</summary>
    public string? DecoderOf(Clip clip) => Decoders?.GetValueOrDefault(clip.Id);

    /// <summary>For stand-ins: the temperature that earlier rounds left, degrees Celsius; null for a rested machine.</summary>
    public double? StartCelsius { get; init; }

    /// <summary>For stand-ins: which of several alike runs this is, from 1, so that repeats vary as a real machine's would
    /// and the same trial still gives the same answer each time. It is the run's seed.</summary>
    public int Occasion { get; init; } = 1;

    /// <summary>Whether every decision about a frame is reported, too; it changes nothing else.</summary>
    public bool LogsDecisions { get; init; }

    /// <summary>Why the timeline cannot be played as it stands, a sentence or more; null where it can.</summary>
    [JsonIgnore]
    public string? Problem
    {
        get
        {
            IReadOnlyList<string> problems =
                [.. Settings.Problems(), .. Subject.Problems(this), .. OfTheMachine(), .. TimelineLimits.Problems(Timeline)];
            problems = problems.Count > 0 ? problems : TimelineCheck.Problems(Timeline, Clips);
            return problems.Count == 0 ? null : string.Join(' ', problems);
        }
    }

    /// <exception cref="PlanRefusedException">The timeline cannot be played as it stands.</exception>
    public PlaybackPlan Checked() => Problem is { } problem ? throw new PlanRefusedException(problem) : this;

    private IEnumerable<string> OfTheMachine()
    {
        if (Machine.Kind != MachineKind.Real
            && new[] { Settings.DecodeOn, Settings.EffectsOn }.OfType<string>().FirstOrDefault(on => on != WorkPlace.Processor)
                is { } device)
        {
            yield return $"A stand-in uses its own devices or the processor only; '{device}' is a device of a real machine.";
        }

        if (Machine.Kind == MachineKind.Real && Settings.Program is { } program)
        {
            yield return $"This machine plays with the Hardy Bench player only. Choose a stand-in to simulate {program.Name}.";
        }

        if (Machine.Kind == MachineKind.Real && Settings.Others is not null)
        {
            yield return "On this machine other programs are the ones that really run. Start them, or choose a stand-in.";
        }
    }

    /// <summary>What is really played for the passage at <paramref name="index"/>: itself without the effects that are off, or its
    /// render.</summary>
    public Passage Played(int index) => Rendered?.GetValueOrDefault(index) ?? Timeline.Passages[index].WithoutOff();

    /// <summary>The plan for what lies from a frame on, at most <paramref name="frames"/> long, its renders cut likewise.</summary>
    /// <returns>That plan, and the passage of this one with which it begins.</returns>
    /// <exception cref="ArgumentOutOfRangeException">The frame lies outside the timeline.</exception>
    public (PlaybackPlan Plan, int FirstPassage) From(long frame, int frames)
    {
        var (part, first) = (Timeline.From(frame, frames), Timeline.PassageIndexAt(frame));
        var rendered = Rendered?.Where(render => render.Key >= first && render.Key < first + part.Passages.Count).ToDictionary(
            render => render.Key - first,
            render =>
                render.Value.Part(
                    render.Key == first ? (int)(frame - Timeline.StartOf(first)) : 0,
                    part.Passages[render.Key - first].FrameCount
                )
        );
        return (this with { Timeline = part, Rendered = rendered, Subject = Subject.Play }, first);
    }

    /// <summary>Ids of all clips that are really played, each once.</summary>
    [JsonIgnore]
    public IReadOnlyList<string> PlayedClipIds => [.. Enumerable.Range(0, Timeline.Passages.Count).SelectMany(index => Played(index).Layers)
        .Select(layer => layer.ClipId).Distinct()];

    /// <summary>The part of the processor that other programs take while nothing else works, 0 to 1.</summary>
    [JsonIgnore]
    public double ShareOfOthers => Settings.Others?.ShareAlone(Machine.Processor.Cores) ?? 0;

    /// <summary>SHA-256 of the files played, by clip id; clips that are not made have none.</summary>
    [JsonIgnore]
    public IReadOnlyDictionary<string, string> ClipChecksums => PlayedClipIds
        .Where(id => Clips[id].Sha256 is not null)
        .ToDictionary(id => id, id => Clips[id].Sha256!);

    /// <summary>The clips of a passage's layers, bottom first.</summary>
    public IReadOnlyList<Clip> ClipsOf(Passage passage) => [.. passage.Layers.Select(layer => Clips[layer.ClipId])];

    /// <summary>Whether a passage is treated with more than 8 bits a sample. What is written to one file is treated alike.</summary>
    public bool IsDeep(Passage passage) => Export is null
        ? Timeline.IsDeep(ClipsOf(passage).Select(clip => clip.Format))
        : Timeline.IsDeep(PlayedClipIds.Select(id => Clips[id].Format));
}

/// <summary>A plan that cannot be played; the message says what is wrong with it.</summary>
public sealed class PlanRefusedException(string message) : Exception(message);
