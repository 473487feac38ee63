using HardyBench.Core.Machines;

namespace HardyBench.Core.Advice.Parts;

/// <summary>Parts put together; whether they fit is another question (<see cref="BuildRules"/>).</summary>
/// <param name="Graphics">Null for the processor's own.</param>
/// <param name="Units">How many alike graphics units; 0 without.</param>
public sealed record Build(
    ProcessorPart Processor, BoardPart Board, MemoryPart Memory, GraphicsPart? Graphics, int Units, DrivePart Drive, SupplyPart Supply,
    CoolerPart Cooler, CasePart Case)
{
    /// <summary>Memory that the system holds. Common practice, no source.</summary>
    private const double SystemGigabytes = 4;

    /// <summary>The most channels of boards for one processor. Common practice, no source.</summary>
    private const int MaxChannels = 2;

    /// <summary>Heat: what a machine draws beside its processor and while it rests, how warm a processor may get, the room, and what a
    /// cooler of metal takes up. Common practice, no source.</summary>
    private const double RestWatts = 15, IdleShare = 0.1, LimitCelsius = 95, RoomCelsius = 24, JoulesPerKelvin = 200;

    public IReadOnlyList<Part> Parts =>
        [Processor, Board, Memory, .. Enumerable.Repeat(Graphics, Units).OfType<Part>(), Drive, Supply, Cooler, Case];

    public decimal Price =>
        Processor.Price + Board.Price + Memory.Price + Units * (Graphics?.Price ?? 0) + Drive.Price + Supply.Price + Cooler.Price
        + Case.Price;

    /// <summary>The machine that they make.</summary>
    public Machine ToMachine()
    {
        var units = Enumerable.Repeat(Graphics, Units).OfType<GraphicsPart>().ToList();
        var idle = RestWatts + IdleShare * Processor.Watts;
        return new Machine(
            "build-" + string.Join('-', Parts.Select(part => part.Id)), NameOf(), MachineKind.StandIn,
            string.Join(", ", Parts.Select(part => part.Name)), Processor.Processor,
            [.. units.Select(unit => unit.Unit), .. Processor.BuiltIn is { } own ? new[] { own } : []],
            [.. units.Select(unit => unit.Engine).OfType<MediaEngine>(), .. Processor.Engine is { } engine ? new[] { engine } : []],
            new Memory(
                Memory.Gigabytes, SystemGigabytes, Memory.Sticks, Memory.MegatransfersPerSecond, Math.Min(MaxChannels, Memory.Sticks)),
            [
                new Drive(
                    Machines.Drive.AllRoles, Drive.Words, Drive.ReadMegabytesPerSecond, Drive.WriteMegabytesPerSecond,
                    Drive.LatencyMilliseconds),
            ],
            new Cooling(
                false, ResistanceOf(Cooler, LimitCelsius, RoomCelsius, idle), JoulesPerKelvin, RoomCelsius, LimitCelsius, idle,
                idle + Processor.Watts),
            Price) { Form = Case.Form, NoiseDecibels = Cooler.Decibels };
    }

    /// <summary>What a cooler makes of another machine's cooling: at its limit it carries away what it is made for, and what the machine
    /// draws while it rests.</summary>
    internal static double ResistanceOf(CoolerPart cooler, Cooling cooling) =>
        ResistanceOf(cooler, cooling.LimitCelsius, cooling.AmbientCelsius, cooling.IdleWatts);

    private static double ResistanceOf(CoolerPart cooler, double limit, double room, double idle) => (limit - room) / (cooler.Watts + idle);

    private string NameOf() => string.Create(
        System.Globalization.CultureInfo.InvariantCulture,
        $"{Processor.Name}, {(Graphics is null ? "built-in graphics" : Units == 1 ? Graphics.Name : $"{Units} × {Graphics.Name}")}, "
            + $"{Memory.Gigabytes:0.#} GB, {Drive.Words}");
}
