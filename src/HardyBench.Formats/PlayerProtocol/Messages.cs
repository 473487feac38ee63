using HardyBench.Core.Machines;
using HardyBench.Core.Playback;

namespace HardyBench.Formats.PlayerProtocol;

/// <summary>A message to a player process: one member is set. docs/formats.md describes the talk.</summary>
public sealed record PlayerRequest
{
    /// <summary>Play a plan.</summary>
    public StartPlay? Play { get; init; }

    /// <summary>Render a passage; the answer is pictures instead of lines.</summary>
    public StartRender? Render { get; init; }

    /// <summary>End what plays.</summary>
    public bool Stop { get; init; }

    /// <summary>Say which devices there are.</summary>
    public bool Devices { get; init; }
}

/// <summary>A plan and all that playing it needs to know of this machine.</summary>
/// <param name="Clips">Where the file of each clip lies, by clip id.</param>
/// <param name="PagesHere">Pages of the product that are open on this machine; null where nobody knows.</param>
/// <param name="DataFolder">Where the run will be kept, whose free space is one of its conditions.</param>
public sealed record StartPlay(
    PlaybackPlan Plan,
    IReadOnlyDictionary<string, ClipPlace> Clips,
    EffectPlaces Effects,
    string? DataFolder,
    int? PagesHere
);

/// <param name="Passage">Its place in the plan, from 0.</param>
public sealed record StartRender(PlaybackPlan Plan, int Passage, IReadOnlyDictionary<string, ClipPlace> Clips, EffectPlaces Effects);

/// <summary>Where a clip's file lies.</summary>
/// <param name="Path">Null when there is none.</param>
/// <param name="Missing">Why there is none, a sentence.</param>
public sealed record ClipPlace(string? Path, string? Missing = null);

/// <summary>Where effects find their files.</summary>
/// <param name="Looks">The folder of look-up tables.</param>
/// <param name="Font">The font file for titles.</param>
public sealed record EffectPlaces(string Looks, string Font);

/// <summary>What a player process says: one member is set.</summary>
public sealed record PlayerEvent
{
    /// <summary>The first line.</summary>
    public PlayerGreeting? Hello { get; init; }

    /// <summary>A clip is about to be opened, by its id: whatever happens next may be its doing.</summary>
    public string? Opens { get; init; }

    /// <summary>A run begins.</summary>
    public RunHeader? Started { get; init; }

    /// <summary>Several times a second: what has come since.</summary>
    public RunProgress? Progressed { get; init; }

    /// <summary>A small picture of what is on screen.</summary>
    public SentPicture? Pictured { get; init; }

    /// <summary>The run is over; all of it has been told.</summary>
    public RunEnding? Ended { get; init; }

    /// <summary>What was asked could not be done.</summary>
    public PlayerFailure? Failed { get; init; }

    /// <summary>The devices there are.</summary>
    public IReadOnlyList<Device>? Devices { get; init; }
}

/// <summary>Who speaks and what it can do.</summary>
/// <param name="Protocol">The talk's version; another than <see cref="PlayerTalk.Version"/> cannot be talked with.</param>
/// <param name="Libraries">The media libraries with their versions; null when they cannot be loaded.</param>
/// <param name="Problem">Why not, a sentence.</param>
/// <param name="Abilities">What may be asked: names of <see cref="PlayerRequest"/>'s members.</param>
/// <param name="ReachesAllFiles">Whether the kernel lets it open every file, as where it cannot confine a process.</param>
/// <param name="StaysAlone">Whether the kernel lets it start no process and reach no network.</param>
public sealed record PlayerGreeting(
    int Protocol,
    string Product,
    string? Libraries,
    string? Problem,
    IReadOnlyList<string> Abilities,
    bool ReachesAllFiles,
    bool StaysAlone = false
)
{
    /// <summary>Whether it has a network and message queues of its own, and a bounded folder in memory.</summary>
    public bool IsApart { get; init; }

    /// <summary>The version of the kernel's file rules (Landlock) that are in force; 0 for none.</summary>
    public int RulesVersion { get; init; }
}

/// <param name="Frame">The timeline frame.</param>
/// <param name="Jpeg">Base64 in the line.</param>
public sealed record SentPicture(int Frame, byte[] Jpeg);

/// <param name="Words">A sentence for people.</param>
public sealed record PlayerFailure(PlayerFailureKind Kind, string Words);

/// <summary>Whose doing it is that something could not be done.</summary>
public enum PlayerFailureKind
{
    /// <summary>The plan cannot be played as it stands.</summary>
    Refused,

    /// <summary>A clip or a passage.</summary>
    Media,

    /// <summary>The media libraries are missing.</summary>
    Unavailable,

    /// <summary>Nobody foresaw it.</summary>
    Unexpected,
}
