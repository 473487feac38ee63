using HardyBench.Media.EffectFiles;
using HardyBench.Player.Effects;
using HardyBench.Workbench;

namespace HardyBench.Benchmarks;

/// <summary>The effects as the player does them.</summary>
internal static class Graphs
{
    /// <param name="bench">Whose looks are used.</param>
    public static PassageGraph Of(Bench bench) => new(new EffectFilters(bench.Folder.Looks, Fonts.ForTitles));
}
