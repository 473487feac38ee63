using HardyBench.Core;
using HardyBench.Core.Footage;

namespace HardyBench.Workbench.Clips;

/// <summary>Finds a clip by its id.</summary>
public static class KnownClips
{
    /// <exception cref="UnknownThingException">There is no such clip.</exception>
    public static Clip Known(this IReadOnlyDictionary<string, Clip> clips, string id) =>
        clips.GetValueOrDefault(id) ?? throw new UnknownThingException("clip", id, clips.Keys);
}
