using System.Globalization;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Calibration;

/// <summary>How far a calibration has come.</summary>
/// <param name="What">In words.</param>
/// <param name="Share">0 to 1.</param>
public sealed record CalibrationProgress(string What, double Share);

/// <summary>Counts the frames that a calibration plays. A measurement that other programs disturbed is played again, which is more work
/// than was planned: the share falls then, and the words say why.</summary>
/// <param name="from">The share that was done before the first frame is played.</param>
/// <param name="planned">Frames of every plan, without repeats.</param>
public sealed class CalibrationCourse(IProgress<CalibrationProgress>? listener, double from, long planned) : IRunObserver
{
    private long played, all = planned;
    private string plan = string.Empty, what = string.Empty;

    /// <summary>A plan is played for the first time.</summary>
    public void Begin(IReadOnlyList<Measure> measures) => what = plan = measures[0].Kind switch
    {
        MeasureKind.OneThread => "decoding on one thread",
        MeasureKind.AllThreads => "decoding on every core",
        _ => "effects",
    };

    /// <summary>Passages of the plan are played again.</summary>
    /// <param name="frames">Of all of them.</param>
    public void Repeat(int passages, long frames)
    {
        all += frames;
        var measurements = passages == 1 ? "1 measurement" : string.Create(CultureInfo.InvariantCulture, $"{passages} measurements");
        what = $"{plan}, {measurements} again because other programs were busy";
    }

    public void Progressed(RunProgress progress)
    {
        played += progress.Frames.Count;
        listener?.Report(new CalibrationProgress(what, from + (1 - from) * Math.Min(1, (double)played / all)));
    }
}
