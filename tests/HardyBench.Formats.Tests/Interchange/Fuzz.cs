using System.Text;
using HardyBench.Formats.Interchange;

namespace HardyBench.Formats.Tests.Interchange;

/// <summary>Mutates files at random, always in the same way, and lets a parser read them.</summary>
internal static class Fuzz
{
    /// <summary>Anything but a result or an <see cref="InterchangeException"/> fails the test with the text that did it.</summary>
    public static void Run(IReadOnlyList<string> sources, int count, Action<string> read)
    {
        var random = new Random(20261125);
        for (var i = 0; i < count; i++)
        {
            var text = Mutate(sources[random.Next(sources.Count)], random);
            try
            {
                read(text);
            }
            catch (InterchangeException clear)
            {
                Assert.NotEmpty(clear.Message);
            }
            catch (Exception unclear)
            {
                Assert.Fail($"{unclear.GetType().Name}: {unclear.Message}\n{unclear.StackTrace}\n{text[..Math.Min(2000, text.Length)]}");
            }
        }
    }

    private static string Mutate(string source, Random random)
    {
        var bytes = Encoding.UTF8.GetBytes(source).ToList();
        for (var n = random.Next(1, 8); n > 0 && bytes.Count > 10; n--)
        {
            var (at, length) = (random.Next(bytes.Count), random.Next(1, 40));
            switch (random.Next(7))
            {
                case 0:
                    bytes[at] = (byte)random.Next(256);
                    break;
                case 1:
                    bytes.RemoveRange(at, Math.Min(length, bytes.Count - at));
                    break;
                case 2:
                    bytes.InsertRange(at, bytes.GetRange(at, Math.Min(length, bytes.Count - at)));
                    break;
                case 3:
                    bytes.RemoveRange(at, bytes.Count - at);
                    break;
                case 4:
                    bytes.InsertRange(at, "null"u8.ToArray());
                    break;
                case 5:
                    bytes.InsertRange(at, "99999999999"u8.ToArray());
                    break;
                default:
                    // Swaps two digits, which keeps the shape and changes the meaning.
                    var digits = bytes.Index().Where(b => b.Item is >= (byte)'0' and <= (byte)'9').Select(b => b.Index).ToList();
                    if (digits.Count > 0)
                    {
                        bytes[digits[random.Next(digits.Count)]] = (byte)('0' + random.Next(10));
                    }

                    break;
            }
        }

        return Encoding.UTF8.GetString([.. bytes]);
    }
}
