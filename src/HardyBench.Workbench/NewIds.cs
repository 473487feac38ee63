using HardyBench.Core;
using HardyBench.Store;

namespace HardyBench.Workbench;

/// <summary>Ids for things that come new onto a shelf.</summary>
/// <param name="kind">The id of one whose name has no letters.</param>
/// <param name="reserved">Ids that none is given.</param>
public sealed class NewIds(int longest, string kind, params string[] reserved)
{
    /// <summary>Words that are addresses beside those of the things: a machine whose id is "export" could not be read.</summary>
    public static IReadOnlyList<string> Addresses { get; } = ["columns", "export", "figures"];

    /// <summary>Gives each its id: its own where that is free or was deleted, so that what is imported again takes its old place; else
    /// one made from its name.</summary>
    /// <param name="with">The thing under another id.</param>
    public async Task<IReadOnlyList<T>> GiveAsync<T>(
        ShelfStore<T> shelf, IEnumerable<T> things, Func<T, (string Id, string Name)> of, Func<T, string, T> with)
    {
        var (taken, deleted) = (new HashSet<string>([.. await shelf.IdsAsync(), .. reserved, .. Addresses]),
            new HashSet<string>(await shelf.DeletedIdsAsync()));
        var named = new List<T>();
        foreach (var thing in things)
        {
            var (wanted, name) = of(thing);
            var id = deleted.Remove(wanted) ? wanted : Slug.For(wanted, name, longest, kind, taken.Contains);
            taken.Add(id);
            named.Add(with(thing, id));
        }

        return named;
    }
}
