using System.Diagnostics;
using HardyBench.Player.Decoding;

namespace HardyBench.Player.Tests.Decoding;

/// <summary>Decoding of long-GOP footage goes on at a later frame that stands alone: every picture before and after it is the one that
/// decoding from the start gives.</summary>
public sealed class LeapTests
{
    private const int Frames = 160, Key = 120;

    /// <summary>Pictures of 320×180 in GOPs of 40: closed, or open, where pictures just before a frame that stands alone need both
    /// GOPs.</summary>
    private static readonly Dictionary<string, string[]> Coded = new()
    {
        ["HEVC, closed"] = ["-c:v", "libx265", "-preset", "veryfast", "-x265-params", "keyint=40:min-keyint=40:scenecut=0:open-gop=0:log-level=none"],
        ["HEVC, open"] = ["-c:v", "libx265", "-preset", "veryfast", "-x265-params", "keyint=40:min-keyint=40:scenecut=0:open-gop=1:log-level=none"],
        ["AVC, closed"] = ["-c:v", "libx264", "-preset", "veryfast", "-x264-params", "keyint=40:min-keyint=40:scenecut=0:open-gop=0"],
        ["AVC, open"] = ["-c:v", "libx264", "-preset", "veryfast", "-x264-params", "keyint=40:min-keyint=40:scenecut=0:open-gop=1"],
    };

    private static readonly Dictionary<string, (string File, List<byte[]> Pictures)> Made = [];

    public static TheoryData<string, int> Cases()
    {
        var cases = new TheoryData<string, int>();
        foreach (var coded in Coded.Keys)
        {
            cases.Add(coded, 1);
            cases.Add(coded, 2);
            cases.Add(coded, 4);
        }

        return cases;
    }

    [Theory]
    [MemberData(nameof(Cases))]
    public void What_the_decoder_works_on_comes_first_and_then_the_frame_leapt_to(string coded, int threads)
    {
        var (file, pictures) = Clip(coded);
        using var decoder = new ClipDecoder(file, threads);
        var numbers = new List<long>();
        for (var taken = 0; taken < 10; taken++)
        {
            Take(decoder.Next());
        }

        var held = 0;
        if (!decoder.GoesOn)
        {
            while (decoder.NextHeld() is { } frame)
            {
                Take(frame);
                held++;
            }
        }

        decoder.GoTo(Key);
        for (var taken = 0; taken < 40; taken++)
        {
            Take(decoder.Next());
        }

        Assert.Equal(numbers.Order(), numbers);
        Assert.DoesNotContain(numbers, number => number is > Key - 20 and < Key);
        Assert.Contains(Key, numbers);
        var after = numbers.Where(number => number >= Key).ToList();
        Assert.Equal(Enumerable.Range(Key, after.Count).Select(number => (long)number), after);
        Assert.Null(decoder.Damage);
        Assert.Equal(coded.StartsWith("HEVC", StringComparison.Ordinal), decoder.GoesOn);
        Assert.True(decoder.GoesOn || held >= threads - 1, $"{held} frames held by {threads} threads");

        void Take(DecodedFrame frame)
        {
            using (frame)
            {
                numbers.Add(frame.Number);
                Assert.True(pictures[(int)(frame.Number % Frames)].AsSpan().SequenceEqual(frame.Picture.CopyPlanes()), $"frame {frame.Number}");
            }
        }
    }

    private static (string File, List<byte[]> Pictures) Clip(string coded)
    {
        lock (Made)
        {
            if (!Made.TryGetValue(coded, out var made))
            {
                var file = Path.Combine(TestData.NewFolder("leaps"), "clip.mp4");
                using var making = Process.Start(
                    "ffmpeg", ["-v", "error", "-f", "lavfi", "-i", $"testsrc2=s=320x180:r=25:d={Frames / 25.0:0.##}", .. Coded[coded],
                        "-pix_fmt", "yuv420p", file])!;
                making.WaitForExit();
                Assert.Equal(0, making.ExitCode);
                using var decoder = new ClipDecoder(file, 1);
                made = (file, [.. Enumerable.Range(0, Frames).Select(_ =>
                {
                    using var frame = decoder.Next();
                    return frame.Picture.CopyPlanes();
                })]);
                Made.Add(coded, made);
            }

            return made;
        }
    }
}
