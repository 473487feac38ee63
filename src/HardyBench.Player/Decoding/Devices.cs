using System.Runtime.InteropServices;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Player.Native;
using HardyBench.Telemetry;

namespace HardyBench.Player.Decoding;

/// <summary>The devices that decoding and effects can be asked to run on.</summary>
public static class Devices
{
    private static readonly Lazy<IReadOnlyList<Device>> Found = new(() => [.. Names().Select(name => new Device(name, RefusalOf(name)))]);

    /// <summary>All kinds that the libraries know, those that can be opened first. Looked for once.</summary>
    /// <exception cref="PlayerUnavailableException">The libraries are missing.</exception>
    public static IReadOnlyList<Device> All
    {
        get
        {
            PlayerLibraries.Versions();
            return [.. Found.Value.OrderBy(device => device.Refusal is not null)];
        }
    }

    /// <summary>Nodes of graphics hardware. Without any of them what opens is software, which works on the processor.</summary>
    private static readonly (string Folder, string Begins)[] Nodes = [("dev/dri", "renderD"), ("dev", "nvidia0"), ("dev", "kfd")];

    /// <summary>The same, with those that the machine works on unless a run asks otherwise.</summary>
    /// <exception cref="PlayerUnavailableException">The libraries are missing.</exception>
    public static IReadOnlyList<Device> On(SystemFiles system)
    {
        var hasHardware = Array.Exists(
            Nodes, node => system.Names(node.Folder).Any(name => name.StartsWith(node.Begins, StringComparison.Ordinal)));
        return hasHardware ? [.. All.Select(device => device with { IsOwn = device.Refusal is null })] : All;
    }

    private static IEnumerable<string> Names()
    {
        for (var index = 0; Marshal.PtrToStringUTF8(NativeMethods.DeviceName(index)) is { } name; index++)
        {
            yield return name;
        }
    }

    /// <summary>Why a device cannot be opened here, or null when it can.</summary>
    public static string? RefusalOf(string name)
    {
        try
        {
            Outcome.Check(NativeMethods.DeviceTry(name), $"opening {name}");
            return null;
        }
        catch (MediaException failure)
        {
            return failure.Message;
        }
    }
}
