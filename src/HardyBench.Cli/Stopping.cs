using System.Runtime.InteropServices;

namespace HardyBench.Cli;

/// <summary>What ends the program from outside: Ctrl+C, a stop by the system, a closed terminal. Watched from the first line of the
/// program on. The first such signal asks the work to stop; a second one ends the program at once.</summary>
internal sealed class Stopping : IDisposable
{
    private readonly CancellationTokenSource stop = new();
    private readonly List<PosixSignalRegistration> watched = [];

    public Stopping()
    {
        foreach (var signal in (PosixSignal[])[PosixSignal.SIGINT, PosixSignal.SIGTERM, PosixSignal.SIGHUP])
        {
            watched.Add(PosixSignalRegistration.Create(signal, Hear));
        }
    }

    public CancellationToken Token => stop.Token;

    private void Hear(PosixSignalContext context)
    {
        context.Cancel = !stop.IsCancellationRequested;
        stop.Cancel();
    }

    public void Dispose()
    {
        watched.ForEach(one => one.Dispose());
        stop.Dispose();
    }
}
