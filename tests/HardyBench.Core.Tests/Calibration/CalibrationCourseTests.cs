using HardyBench.Core.Calibration;
using HardyBench.Core.Playback;

namespace HardyBench.Core.Tests.Calibration;

public sealed class CalibrationCourseTests
{
    private readonly List<CalibrationProgress> told = [];

    [Fact]
    public void What_is_played_again_is_more_work_and_named()
    {
        var course = new CalibrationCourse(new Told(told), 0.4, 100);
        course.Begin([new Measure(MeasureKind.Treatment, "clip", Samples.HdAvc, null, 0, false)]);
        Play(course, 80);
        course.Repeat(1, 20);
        Play(course, 10);
        course.Repeat(2, 40);
        Play(course, 70);

        Assert.Equal(
            [
                "effects",
                "effects, 1 measurement again because other programs were busy",
                "effects, 2 measurements again because other programs were busy",
            ],
            told.Select(one => one.What));
        Assert.Equal([0.4 + 0.6 * 0.8, 0.4 + 0.6 * 90 / 120, 1], told.Select(one => one.Share), Close);
    }

    private static bool Close(double one, double other) => Math.Abs(one - other) < 1e-9;

    private static void Play(CalibrationCourse course, int frames) =>
        course.Progressed(new RunProgress(new FrameRecord[frames], [], []));

    private sealed class Told(List<CalibrationProgress> told) : IProgress<CalibrationProgress>
    {
        public void Report(CalibrationProgress value) => told.Add(value);
    }
}
