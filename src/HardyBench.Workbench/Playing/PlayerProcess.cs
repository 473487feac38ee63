using System.ComponentModel;
using System.Diagnostics;
using System.Text.Json;
using HardyBench.Core.Playback;
using HardyBench.Formats.PlayerProtocol;

namespace HardyBench.Workbench.Playing;

/// <summary>One process of the player, which is talked with. Used by one at a time.</summary>
public sealed class PlayerProcess : IDisposable
{
    /// <summary>A start takes some tenths of a second; a machine that is busy takes longer.</summary>
    private static readonly TimeSpan LongestStart = TimeSpan.FromSeconds(30);

    /// <summary>Characters of what it said beside the talk that are kept, the last ones.</summary>
    private const int LongestErrorText = 4000;

    private static readonly TimeSpan LongestEnd = TimeSpan.FromSeconds(5);

    private readonly Process process;
    private readonly string home;
    private readonly BoundedLines lines;
    private readonly Lock gate = new();
    private string errorText = string.Empty;

    private PlayerProcess(Process process, string home)
    {
        (this.process, this.home) = (process, home);
        lines = new BoundedLines(process.StandardOutput.BaseStream);
        process.ErrorDataReceived += (_, line) =>
        {
            var all = $"{errorText}{line.Data}\n";
            errorText = all.Length > LongestErrorText ? all[^LongestErrorText..] : all;
        };
        process.BeginErrorReadLine();
    }

    /// <summary>Who it said it is.</summary>
    public PlayerGreeting Greeting { get; private set; } = null!;

    public int Id => process.Id;

    /// <summary>Whether it runs.</summary>
    public bool IsAlive => !process.HasExited;

    /// <summary>Starts one and hears its greeting.</summary>
    /// <param name="more">Files that it may read besides those of the program.</param>
    /// <exception cref="PlayerUnavailableException">It cannot be started, or is another than this program can talk with.</exception>
    public static async Task<PlayerProcess> StartAsync(PlayerProgram program, IReadOnlyList<string> more, CancellationToken stop)
    {
        var home = program.NewHome();
        PlayerProcess player;
        try
        {
            player = new PlayerProcess(program.Start(home, more), home);
        }
        catch (Exception failure) when (failure is Win32Exception or IOException or UnauthorizedAccessException)
        {
            throw new PlayerUnavailableException($"The player cannot be started: {failure.Message}", failure);
        }

        try
        {
            var first = await player.ReceiveAsync(stop).AsTask().WaitAsync(LongestStart, stop);
            player.Greeting = first?.Hello ?? throw new PlayerUnavailableException($"The player did not start: {player.LastWords}");
            return player.Greeting.Protocol == PlayerTalk.Version
                ? player
                : throw new PlayerUnavailableException("The player beside this program has another version. Build the product again.");
        }
        catch (Exception failure)
        {
            player.Dispose();
            throw failure is TimeoutException or JsonException or InvalidDataException
                ? new PlayerUnavailableException($"The player did not start: {failure.Message}", failure)
                : failure;
        }
    }

    /// <summary>What it said last beside the talk, or how it ended.</summary>
    public string LastWords => errorText.Trim() is { Length: > 0 } words ? words : IsAlive ? "no message" : Ended;

    /// <summary>How it ended, in words.</summary>
    public string Ended => process.ExitCode switch
    {
        0 => "it ended by itself",
        > 128 and var code when Enum.IsDefined((EndingSignal)(code - 128)) => $"it was ended by {(EndingSignal)(code - 128)}",
        var code => $"it ended with code {code}",
    };

    /// <exception cref="IOException">It is gone.</exception>
    public void Ask(PlayerRequest ask)
    {
        lock (gate)
        {
            PlayerTalk.Write(process.StandardInput.BaseStream, ask, PlayerTalk.Asks);
        }
    }

    /// <summary>The next that it says; null when it says nothing more.</summary>
    /// <exception cref="JsonException">It is no message.</exception>
    /// <exception cref="InvalidDataException">It is too long for one.</exception>
    public async ValueTask<PlayerEvent?> ReceiveAsync(CancellationToken stop) =>
        await lines.ReadAsync(stop) is { } line ? PlayerTalk.Read(line.Span, PlayerTalk.Tells) : null;

    /// <summary>Waits until it is gone, as after it said nothing more.</summary>
    /// <returns>How it ended, in words.</returns>
    public string WaitForEnd()
    {
        if (!process.WaitForExit(LongestEnd))
        {
            Kill();
        }

        return Ended;
    }

    /// <summary>Ends it, whatever it does.</summary>
    public void Kill()
    {
        try
        {
            process.Kill(entireProcessTree: true);
            process.WaitForExit(LongestEnd);
        }
        catch (Exception gone) when (gone is InvalidOperationException or Win32Exception)
        {
            // It ended meanwhile.
        }
    }

    public void Dispose()
    {
        Kill();
        process.Dispose();
        PlayerProgram.DeleteHome(home);
    }

    /// <summary>Signals by which the kernel ends a program (signal(7)).</summary>
    private enum EndingSignal
    {
        SIGILL = 4,
        SIGABRT = 6,
        SIGBUS = 7,
        SIGFPE = 8,
        SIGKILL = 9,
        SIGSEGV = 11,
        SIGTERM = 15,
        SIGXCPU = 24,
        SIGXFSZ = 25,
        SIGSYS = 31,
    }
}
