using System.Globalization;
using HardyBench.Core;
using HardyBench.Core.Footage;
using HardyBench.Media.Clips;
using HardyBench.Store;

namespace HardyBench.Workbench.Deleted;

/// <summary>Everything that was deleted and can still be restored, whatever it is.</summary>
public sealed class DeletedJobs(DeletedStore deleted, RunWriter runs, OwnClips clips)
{
    /// <summary>The kind under which clips stand.</summary>
    public const string Clip = "clip";

    /// <summary>The last deleted first.</summary>
    public async Task<IReadOnlyList<DeletedThing>> ListAsync() =>
    [
        .. (await deleted.ListAsync())
            .Concat(clips.Deleted.Select(one => new DeletedThing(Clip, one.Clip.Id, one.Clip.Id, one.At)))
            .OrderByDescending(thing => thing.DeletedAt),
    ];

    /// <summary>Puts one back where it was.</summary>
    /// <exception cref="UnknownThingException">There is nothing like that to restore.</exception>
    public async Task RestoreAsync(string kind, string id)
    {
        var isRestored = kind switch
        {
            Clip => RestoreClip(id),
            DeletedStore.Run => long.TryParse(id, CultureInfo.InvariantCulture, out var run)
                && await runs.SetDeletedAsync([run], deleted: false, DateTimeOffset.UtcNow) > 0,
            _ => await deleted.RestoreAsync(kind, id),
        };
        if (!isRestored)
        {
            throw new UnknownThingException($"deleted {kind}", id, []);
        }
    }

    private bool RestoreClip(string id)
    {
        try
        {
            clips.Restore(id);
            return true;
        }
        catch (MediaException)
        {
            return false;
        }
    }
}
