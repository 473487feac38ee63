namespace HardyBench.Core.Pacing;

/// <summary>The drop decisions, as pure functions of time.</summary>
public static class Timing
{
    /// <summary>How long after its slot a frame may still be shown. Beyond it picture and sound of a person who speaks clearly do not
    /// belong together any more. Our own choice.</summary>
    public static readonly TimeSpan MaxOverdue = TimeSpan.FromSeconds(1);

    /// <summary>Keep time: whether work of <paramref name="expected"/> length begun now can still be seen.
    /// Work that would end later is skipped before it is spent.</summary>
    public static bool IsWorthTreating(TimeSpan now, TimeSpan expected, TimeSpan slotEnd) => now + expected < slotEnd + MaxOverdue;

    /// <summary>How long before a cut the next passage is opened and its first frame decoded: for footage that is too much that takes
    /// longest of all, and one frame takes little from the passage that still plays.</summary>
    public static readonly TimeSpan OpenAhead = TimeSpan.FromSeconds(2);

    /// <summary>Keep time: whether it is time to begin the first frame of the next passage, before the last of this.</summary>
    /// <param name="way">How long a frame of this passage takes from beginning to end, with what it waits for.</param>
    public static bool IsNextDue(TimeSpan now, TimeSpan way, TimeSpan cut) =>
        now + OpenAhead >= cut || IsFirstDue(now, way, cut);

    /// <summary>Keep time, in a passage that is too much: whether it is time for the effects of the next passage's first frame, which is
    /// decoded already. No earlier, since they take from the frames of this one.</summary>
    /// <inheritdoc cref="IsNextDue"/>
    public static bool IsFirstDue(TimeSpan now, TimeSpan way, TimeSpan cut) => now + WaysBefore * way >= cut;

    /// <summary>The second frame of the next passage is begun one way before the cut, and the first has to be ready then.</summary>
    private const int WaysBefore = 2;
}
