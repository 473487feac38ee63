using static System.FormattableString;

namespace HardyBench.Core.Advice.Parts;

/// <summary>Parts that can be had.</summary>
public sealed class Catalogue(IReadOnlyList<Part> parts)
{
    /// <summary>The most builds that are looked through, and the most ways of putting parts together that are tried for them: beyond that
    /// memory and patience end.</summary>
    public const int MaxBuilds = 500_000;

    private const double MaxTried = 50_000_000;

    /// <summary>No more alike graphics units than this are put together.</summary>
    private const int MaxUnits = 2;

    private readonly List<BoardPart> boards = [.. parts.OfType<BoardPart>().OrderBy(part => part.Price)];
    private readonly List<SupplyPart> supplies = [.. parts.OfType<SupplyPart>().OrderBy(part => part.Price)];
    private readonly List<MemoryPart> memories = [.. parts.OfType<MemoryPart>()];
    private readonly List<CasePart> cases = [.. parts.OfType<CasePart>()];
    private readonly List<DrivePart> drives = [.. parts.OfType<DrivePart>()];
    private readonly List<CoolerPart> coolers = [.. parts.OfType<CoolerPart>()];

    public IReadOnlyList<Part> Parts { get; } = parts;

    /// <summary>Every build that fits and that is not merely more expensive than another of the same parts that move a result, the same
    /// case among them: board and power supply are the cheapest that do.</summary>
    /// <exception cref="PartRefusedException">There are too many to look through.</exception>
    public IReadOnlyList<Build> Builds()
    {
        var tried = Of<ProcessorPart>().Sum(processor => (double)Pictures(processor).Count())
            * memories.Count * cases.Count * drives.Count * coolers.Count;
        var made = 0;
        List<Build> builds = tried > MaxTried ? []
            :
            [
                .. Of<ProcessorPart>().AsParallel().AsOrdered().SelectMany(processor => Pictures(processor)
                    .SelectMany(picture => With(processor, picture))
                    .TakeWhile(_ => Interlocked.Increment(ref made) <= MaxBuilds)),
            ];
        return tried <= MaxTried && made <= MaxBuilds ? builds : throw new PartRefusedException(
            Invariant($"These parts make more than {MaxBuilds:N0} builds, too many to search. Delete some, or answer without builds."));
    }

    private IEnumerable<Build> With(ProcessorPart processor, (GraphicsPart? Unit, int Units) picture)
    {
        var watts = BuildRules.WattsFor(processor, picture.Unit, picture.Units);
        if (supplies.Find(one => one.Watts >= watts) is not { } supply)
        {
            yield break;
        }

        foreach (var memory in memories)
        {
            foreach (var housing in cases)
            {
                foreach (var drive in drives)
                {
                    foreach (var cooler in coolers)
                    {
                        foreach (var board in boards)
                        {
                            var build = new Build(
                                processor, board, memory, picture.Unit, picture.Units, drive, supply, cooler, housing);
                            if (BuildRules.Fits(build))
                            {
                                yield return build;
                                break;
                            }
                        }
                    }
                }
            }
        }
    }

    /// <summary>Every way of putting one part of each kind together, whether it fits or not.</summary>
    public IEnumerable<Build> Everything() =>
        from processor in Of<ProcessorPart>()
        from board in Of<BoardPart>()
        from memory in Of<MemoryPart>()
        from picture in Of<GraphicsPart>()
            .SelectMany(unit => Enumerable.Range(1, MaxUnits).Select(units => (Unit: (GraphicsPart?)unit, units)))
            .Prepend((null, 0))
        from drive in Of<DrivePart>()
        from supply in Of<SupplyPart>()
        from cooler in Of<CoolerPart>()
        from housing in Of<CasePart>()
        select new Build(processor, board, memory, picture.Unit, picture.units, drive, supply, cooler, housing);

    /// <summary>Why parts make no machine, and what they cost together.</summary>
    /// <param name="ids">One of each kind; alike graphics units as often as they are wanted.</param>
    /// <returns>A sentence each; none where they do.</returns>
    public (IReadOnlyList<string> Problems, decimal Price) Check(IReadOnlyList<string> ids)
    {
        var unknown = ids.Where(id => !Parts.Any(part => part.Id == id)).Distinct().ToList();
        var found = ids.Select(id => Parts.FirstOrDefault(part => part.Id == id)).OfType<Part>().ToList();
        var price = found.Sum(part => part.Price);
        string[] missing =
        [
            .. Lacks<ProcessorPart>("processor"), .. Lacks<BoardPart>("board"), .. Lacks<MemoryPart>("memory"), .. Lacks<DrivePart>("drive"),
            .. Lacks<SupplyPart>("power supply"), .. Lacks<CoolerPart>("cooler"), .. Lacks<CasePart>("case"),
        ];
        var units = found.OfType<GraphicsPart>().ToList();
        string[] problems =
        [
            .. unknown.Select(id => $"There is no part '{id}'."), .. missing,
            .. units.Distinct().Count() > 1 ? ["Graphics units that work together have to be equal."] : Array.Empty<string>(),
        ];
        return problems.Length > 0 ? (problems, price) : (BuildRules.Problems(new Build(
            found.OfType<ProcessorPart>().Single(), found.OfType<BoardPart>().Single(), found.OfType<MemoryPart>().Single(),
            units.FirstOrDefault(), units.Count, found.OfType<DrivePart>().Single(), found.OfType<SupplyPart>().Single(),
            found.OfType<CoolerPart>().Single(), found.OfType<CasePart>().Single())), price);

        IEnumerable<string> Lacks<T>(string kind) => found.OfType<T>().Count() switch
        {
            0 => [$"A {kind} is missing."],
            1 => [],
            var count => [$"There are {count} parts of the kind {kind}; there has to be one."],
        };
    }

    private IEnumerable<(GraphicsPart? Unit, int Units)> Pictures(ProcessorPart processor) =>
    [
        .. processor.BuiltIn is null ? Array.Empty<(GraphicsPart?, int)>() : [(null, 0)],
        .. Of<GraphicsPart>().SelectMany(unit => Enumerable.Range(1, MaxUnits).Select(units => ((GraphicsPart?)unit, units))),
    ];

    private IEnumerable<T> Of<T>() where T : Part => Parts.OfType<T>();
}
