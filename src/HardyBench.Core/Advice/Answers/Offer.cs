using HardyBench.Core.Advice.Briefs;
using HardyBench.Core.Advice.Parts;
using HardyBench.Core.Machines;

namespace HardyBench.Core.Advice.Answers;

/// <summary>Something that could be bought: a listed machine, or a build.</summary>
/// <param name="Machine">As it would play; of a build it is put together when it is asked for.</param>
public sealed class Offer
{
    private readonly Lazy<Machine> machine;

    private Offer(Func<Machine> machine, decimal price, Build? build) =>
        (this.machine, Price, Build) = (new Lazy<Machine>(machine), price, build);

    public Machine Machine => machine.Value;

    public decimal Price { get; }

    /// <summary>Null for a listed machine.</summary>
    public Build? Build { get; }

    public MachineForm? Form => Traits.Form;

    public double? Decibels => Traits.Decibels;

    /// <summary>What it is, besides how it plays.</summary>
    public Traits Traits => Build is { } build ? new Traits(build.Case.Form, build.Cooler.Decibels, HasBattery: false) : Traits.Of(Machine);

    /// <returns>Null where its price is not known, and so nobody can buy it, and for twins, which stand for a machine that somebody
    /// has.</returns>
    public static Offer? Of(Machine machine) =>
        machine is { Price: { } price, Kind: MachineKind.StandIn, IsTwin: false } ? new Offer(() => machine, price, null) : null;

    public static Offer Of(Build build) => new(build.ToMachine, build.Price, build);
}
