using System.Runtime.InteropServices;
using HardyBench.PlayerHost;

// Plays for another program, which talks with it over its standard streams. With "render" it is asked one thing and answers with pictures.
// A terminal's interrupt goes to it too, but it is the other program that decides what happens then.
using var interrupt = PosixSignalRegistration.Create(PosixSignal.SIGINT, signal => signal.Cancel = true);
using var input = Console.OpenStandardInput();
using var output = Console.OpenStandardOutput();
using var talk = new Talk(input, output);
return args is ["render"] ? await Rendering.RunAsync(input, output) : await talk.RunAsync();
