using HardyBench.Core.Machines;
using static System.FormattableString;

namespace HardyBench.Core.Advice.Parts;

/// <summary>A part that cannot be worked with; the message says what is wrong with it.</summary>
public sealed class PartRefusedException(string message) : Exception(message);

/// <summary>What keeps a description from being a part.</summary>
public static class PartLimits
{
    private const int LongestId = 60, LongestText = 40;
    private const decimal MaxMoney = 1_000_000;

    /// <exception cref="PartRefusedException">Something is wrong with it; everything is named.</exception>
    public static Part Checked(Part part)
    {
        var problems = Problems(part).ToList();
        return problems.Count == 0 ? part : throw new PartRefusedException(string.Join(' ', problems));
    }

    /// <summary>A sentence each; nothing for one that can be put into a build.</summary>
    public static IEnumerable<string> Problems(Part part)
    {
        if (string.IsNullOrWhiteSpace(part.Name) || part.Name.Length > MachineLimits.LongestName || part.Name.Any(char.IsControl))
        {
            yield return $"A part has a name of 1 to {MachineLimits.LongestName} letters.";
        }

        if (part.Id is null or { Length: > LongestId } || part.Id.Any(letter => !char.IsAsciiLetterOrDigit(letter) && letter != '-'))
        {
            yield return $"The id of a part has up to {LongestId} letters, digits and hyphens.";
        }

        if (part.Price is < 0 or > MaxMoney)
        {
            yield return Invariant($"A price: 0 to {MaxMoney:N0} {Machine.Currency}, not {part.Price}.");
        }

        foreach (var problem in OfKind(part).OfType<string>())
        {
            yield return problem;
        }
    }

    private static IEnumerable<string?> OfKind(Part part) => part switch
    {
        ProcessorPart processor =>
        [
            Text("socket", processor.Socket), Within("watts", processor.Watts, 1, 1000),
            .. processor.Processor is null ? ["The processor itself is missing."]
                : InMachine(processor.Processor, processor.BuiltIn, processor.Engine),
        ],
        BoardPart board =>
        [
            Text("socket", board.Socket), Text("kind of memory", board.MemoryKind), AsInMachine("memory slots", "places.memorySlots", board.MemorySlots),
            AsInMachine("most memory in GB", "places.mostGigabytes", board.MostGigabytes), Within("long slots", board.GraphicsSlots, 0, 8),
            AsInMachine("places for drives on the bus", "places.freeNvme", board.NvmeSlots),
            AsInMachine("ports for other drives", "places.freeSata", board.SataPorts),
            Enum.IsDefined(board.Size) ? null : "The size of the board is unknown.",
        ],
        MemoryPart memory =>
        [
            Text("kind of memory", memory.MemoryKind), AsInMachine("sticks", "memory.sticks", memory.Sticks),
            Within("GB of each stick", memory.GigabytesEach, 0.5, 1024),
            AsInMachine("MT/s", "memory.megatransfersPerSecond", memory.MegatransfersPerSecond),
        ],
        GraphicsPart graphics =>
        [
            Within("watts", graphics.Watts, 1, 2000), Within("length in mm", graphics.Millimetres, 10, 1000),
            .. graphics.Unit is null ? ["The graphics unit itself is missing."] : InMachine(Plain, graphics.Unit, graphics.Engine),
        ],
        DrivePart drive =>
        [
            Text("words", drive.Words), AsInMachine("read rate in MB/s", "drives.readMegabytesPerSecond", drive.ReadMegabytesPerSecond),
            AsInMachine("write rate in MB/s", "drives.writeMegabytesPerSecond", drive.WriteMegabytesPerSecond),
            AsInMachine("latency in ms", "drives.latencyMilliseconds", drive.LatencyMilliseconds),
            Enum.IsDefined(drive.Interface) ? null : "The interface of the drive is unknown.",
        ],
        SupplyPart supply => [AsInMachine("watts", "places.supplyWatts", supply.Watts)],
        CoolerPart cooler =>
        [
            AsInMachine("watts", "places.coolerWatts", cooler.Watts), Within("height in mm", cooler.Millimetres, 1, 1000),
            Within("noise in dB(A)", cooler.Decibels, 0, 140),
        ],
        CasePart housing =>
        [
            AsInMachine("room for graphics in mm", "places.graphicsMillimetres", housing.GraphicsMillimetres),
            Within("room for a cooler in mm", housing.CoolerMillimetres, 0, 1000),
            Enum.IsDefined(housing.Form) && Enum.IsDefined(housing.Largest) ? null : "The form or size is unknown.",
        ],
        _ => [],
    };

    private static readonly Processor Plain = new("p", 4, 4, 1, 3);

    /// <summary>What would be wrong with a machine that has these.</summary>
    private static IEnumerable<string> InMachine(Processor processor, Graphics? graphics, MediaEngine? engine) =>
        MachineLimits.Problems(new Machine(
            "part", "part", MachineKind.StandIn, string.Empty, processor, graphics is null ? [] : [graphics],
            engine is null ? [] : [engine], new Memory(64, 4, 2, 3200), [new Drive(Drive.AllRoles, "NVMe", 3000, 2000, 0.1)], null, 1));

    private static string? Text(string what, string? text) =>
        string.IsNullOrWhiteSpace(text) || text.Length > LongestText || text.Any(char.IsControl)
            ? $"The {what} is 1 to {LongestText} letters in one line." : null;

    /// <summary>A number that a machine with the part has, too: within the limits that it has there.</summary>
    private static string? AsInMachine(string what, string path, double value)
    {
        var figure = MachineFigures.All.First(figure => figure.Path == path);
        return Within(what, value, figure.Min, figure.Max);
    }

    private static string? Within(string what, double value, double least, double most) =>
        value >= least && value <= most ? null : Invariant($"The {what}: {least} to {most}, not {value}.");
}
