namespace HardyBench.Core.Machines;

/// <summary>What other parts have to go by that are put into a machine. What is null has not been stated. None of it moves a
/// result.</summary>
/// <param name="Socket">What its processor is plugged into, by name.</param>
/// <param name="CoolerWatts">What its cooler carries away for good.</param>
/// <param name="MemoryKind">By name, such as DDR5.</param>
/// <param name="MemorySlots">Places for sticks, filled ones too.</param>
/// <param name="MostGigabytes">Of memory.</param>
/// <param name="FreeNvme">Places for drives on the bus that nothing is in.</param>
/// <param name="FreeSata">Ports for other drives that nothing is on.</param>
/// <param name="GraphicsMillimetres">The longest graphics unit that goes in.</param>
/// <param name="SupplyWatts">What its power supply gives.</param>
/// <param name="GraphicsWatts">What its graphics units on the bus draw at full load, all together.</param>
public sealed record Places(
    string? Socket = null, double? CoolerWatts = null, string? MemoryKind = null, int? MemorySlots = null, double? MostGigabytes = null,
    int? FreeNvme = null, int? FreeSata = null, double? GraphicsMillimetres = null, double? SupplyWatts = null,
    double? GraphicsWatts = null);
