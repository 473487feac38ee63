using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Machines;

namespace HardyBench.Core.Advice.Answers;

/// <summary>Something that could be bought: a machine of the shelf, or a build.</summary>
/// <param name="Machine">As it would play; of a build it is put together when it is asked for.</param>
public sealed class Offer
{
    private readonly Lazy<Machine> machine;

    private Offer(Func<Machine> machine, decimal price, Build? build) =>
        (this.machine, Price, Build) = (new Lazy<Machine>(machine), price, build);

    public Machine Machine => machine.Value;

    public decimal Price { get; }

    /// <summary>Null for a machine of the shelf.</summary>
    public Build? Build { get; }

    public MachineForm? Form => Build is { } build ? build.Case.Form : Machine.Form;

    public double? Decibels => Build is { } build ? build.Cooler.Decibels : Machine.NoiseDecibels;

    /// <returns>Null where nobody has stated its price, and so nobody can buy it.</returns>
    public static Offer? Of(Machine machine) =>
        machine is { Price: { } price, Kind: MachineKind.StandIn } ? new Offer(() => machine, price, null) : null;

    public static Offer Of(Build build) => new(build.ToMachine, build.Price, build);
}
