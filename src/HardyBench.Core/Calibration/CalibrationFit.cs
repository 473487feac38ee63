using HardyBench.Core.Findings.Statistics;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Core.StandIns;
using HardyBench.Core.Timelines.Effects;
using MathNet.Numerics.Statistics;

namespace HardyBench.Core.Calibration;

/// <summary>A machine cannot be calibrated from what was measured; the message says why.</summary>
public sealed class CalibrationException(string message) : Exception(message);

/// <summary>From what was measured to what work takes.</summary>
/// <param name="CoreSpeed">Of one core against the reference core: the median over codecs.</param>
/// <param name="Decodes">What was measured of decoding on one thread, and what the fit makes of it.</param>
public sealed record CalibrationFit(double CoreSpeed, MachineCosts Costs, IReadOnlyList<FittedDecode> Decodes)
{
    /// <summary>However close a fit is, predictions are not closer: machines waver from minute to minute. Common practice, no
    /// source.</summary>
    private const double MinBand = 0.05;

    /// <summary>Predictions that may be off by as much as they say are of no use. With so few clips a codec the band of a good
    /// calibration is about ±60 %, most of it because nine clips leave three degrees of freedom. Common practice, no source.</summary>
    private const double MaxBand = 1;

    /// <summary>No twin is made of measurements that contradict each other.</summary>
    /// <exception cref="CalibrationException">The fit is too uncertain.</exception>
    public CalibrationFit Checked() => Costs.Band <= MaxBand ? this : throw new CalibrationException(FormattableString.Invariant(
        $"The measurements contradict each other: predictions from them would be within ±{Costs.Band:P0} only, and ±{MaxBand:P0} is the ")
        + "most that a twin may have. Nothing was changed. Close other programs, let the machine cool, and calibrate again.");

    /// <param name="cores">Cores that could be used; a part of one where a control group leaves no whole one.</param>
    /// <exception cref="CalibrationException">No decoding could be measured.</exception>
    public static CalibrationFit Of(IReadOnlyList<Measure> measures, double cores, DateTimeOffset now)
    {
        var usable = measures.Where(measure => measure.IsUsable).ToList();
        var groups = usable.Where(measure => measure.Kind == MeasureKind.OneThread)
            .GroupBy(measure => measure.DecodesAs)
            .Select(group => (group.Key, Rows: group.ToList(), Fit: FitOf([.. group])))
            .ToList();
        if (groups.Count == 0)
        {
            throw new CalibrationException("No clip could be decoded long enough to measure its cost. Create the clips again, then measure again.");
        }

        var speed = groups
            .SelectMany(group => group.Rows.Select(row =>
                DecodeCost.Of(row.Format.Codec).MeanCoreSeconds(row.Format) / row.DecodeSeconds))
            .Median();

        // Few clips a codec tell little of the spread, so it is taken from all of them together.
        var free = Math.Max(1, groups.Sum(group => group.Rows.Count - group.Fit.Free));
        var sigma = Math.Sqrt(groups.Sum(group => group.Fit.Residuals.Sum(residual => residual * residual)) / free);
        var quantile = Spread.Quantile(free);
        var decoding = groups.Select(group => CostOf(group.Key, group.Rows, group.Fit, usable, cores, speed, quantile * sigma)).ToList();
        return new CalibrationFit(
            speed,
            new MachineCosts(decoding, TreatingOf(usable, speed), Math.Max(MinBand, quantile * sigma), now)
            {
                AllBusy = AllBusyOf(usable),
            },
            [.. groups.SelectMany(group => group.Rows.Zip(group.Fit.Residuals, (row, residual) =>
                new FittedDecode(row.Clip, row.Format, row.DecodeSeconds, row.DecodeSeconds * (1 - residual))))]);
    }

    /// <summary>Shares of what was measured are fitted, so that a large frame counts no more than a small one.</summary>
    private static NonNegative FitOf(IReadOnlyList<Measure> rows) => NonNegative.Solve(
        [.. rows.Select(row => new[] { SampleBytes(row.Format) / row.DecodeSeconds, row.Format.BitsPerFrame / row.DecodeSeconds })],
        [.. rows.Select(_ => 1.0)]);

    private static CodecCost CostOf(
        (Codec Codec, bool Deep) key, List<Measure> rows, NonNegative fit, List<Measure> all, double cores, double speed, double half)
    {
        var (ofSamples, ofBits) = SerialParts(rows, fit, all, cores);
        return new CodecCost(
            key.Codec,
            key.Deep,
            fit.Coefficients[0] * speed,
            fit.Coefficients[1] * speed,
            Half(fit.Unscaled[0], fit.Coefficients[0]) * speed,
            Half(fit.Unscaled[1], fit.Coefficients[1]) * speed,
            ofSamples,
            rows.Max(row => SampleBytes(row.Format)),
            rows.Max(row => row.Format.BitsPerFrame)) { BitsSerialPart = ofBits };

        // What clips of one kind cannot tell apart is known no better than that it is something.
        double Half(double unscaled, double value) => double.IsFinite(unscaled) ? half * Math.Sqrt(unscaled) : value;
    }

    /// <summary>The same frames take more processor time where all cores decode: the median of that over clips.</summary>
    private static double AllBusyOf(List<Measure> all)
    {
        var slower = all.Where(measure => measure.Kind == MeasureKind.AllThreads)
            .Select(measure => (All: measure, One: all.Find(one => one.Kind == MeasureKind.OneThread && one.Clip == measure.Clip)))
            .Where(pair => pair.One is not null)
            .Select(pair => pair.One!.DecodeSeconds / pair.All.DecodeSeconds).ToList();
        return slower.Count == 0 ? 1 : Math.Clamp(slower.Median(), MinBusy, 1);
    }

    /// <summary>Two that share one core's units are no slower than this. Common practice, no source.</summary>
    private const double MinBusy = 0.5;

    /// <summary>What more cores gain of the samples' work and of the bits': the time that passes on all of them is fitted as that on one
    /// is. Where clips do not tell the two apart, the median over them stands for both.</summary>
    private static (double OfSamples, double? OfBits) SerialParts(
        List<Measure> rows, NonNegative one, List<Measure> all, double cores)
    {
        var pairs = rows
            .Select(row => (One: row, All: all.Find(other => other.Kind == MeasureKind.AllThreads && other.Clip == row.Clip)))
            .Where(pair => pair.All is not null).ToList();
        if (pairs.Count == 0 || cores <= 1)
        {
            return (0, null);
        }

        if (pairs.Count > 1)
        {
            var side = FitOf([.. pairs.Select(pair => pair.All! with { DecodeSeconds = 1 / pair.All!.FramesPerSecond })]);
            if (side.Coefficients.Concat(one.Coefficients).All(cost => cost > 0))
            {
                var gains = one.Coefficients.Zip(side.Coefficients, (alone, together) => alone / together).ToList();
                return (SerialPart(gains[0], cores), SerialPart(gains[1], cores));
            }
        }

        return (SerialPart(pairs.Select(pair => pair.All!.FramesPerSecond * pair.One.DecodeSeconds).Median(), cores), null);
    }

    /// <summary>Amdahl's law (1967) the other way round: the part that makes so many cores gain no more than they do.</summary>
    private static double SerialPart(double gain, double cores) => Math.Clamp((cores / gain - 1) / (cores - 1), 0, 1);

    private static List<WorkTime> TreatingOf(List<Measure> all, double speed)
    {
        var treated = all.Where(measure => measure.Kind == MeasureKind.Treatment).ToList();
        var works = treated.Select(measure => measure.Work).OfType<string>().Distinct().ToList();
        var times = works.ToDictionary(work => work, work => (Shallow: Of(work, deep: false), Deep: Of(work, deep: true)));
        var way = (Shallow: Way(deep: false), Deep: Way(deep: true));
        return
        [
            .. works.Where(work => work != CalibrationPlan.Chain).Select(work => EffectCatalogue.Find(work)?.InColour == true
                ? new WorkTime(work, Less(times[work].Shallow, way.Shallow), Less(times[work].Deep, way.Deep))
                : new WorkTime(work, times[work].Shallow, times[work].Deep)),
            .. way is (null, null) ? Array.Empty<WorkTime>() : [new WorkTime(TreatmentCost.ToColourAndBack, way.Shallow, way.Deep)],
        ];

        // Two alone have the way there and back twice, in a chain once.
        double? Way(bool deep) =>
            Of("primary-grade", deep) is { } grade && Of("curves", deep) is { } curves && Of(CalibrationPlan.Chain, deep) is { } chain
                ? Math.Clamp(grade + curves - chain, 0, Math.Min(grade, curves))
                : null;

        double? Less(double? time, double? shared) => time is { } all && shared is { } part ? Math.Max(0, all - part) : time;

        // What the same footage takes without treatment is not of it.
        double? Of(string work, bool deep) =>
            treated.FirstOrDefault(measure => measure.Work == work && measure.Deep == deep) is { } measure
            && treated.FirstOrDefault(one => one.Work is null && one.Deep == deep) is { } bare
                ? Math.Max(0, measure.EffectsSeconds - bare.EffectsSeconds) * speed / measure.Pixels * 1e9
                : null;
    }

    private static double SampleBytes(ClipFormat format) => format.SamplesPerFrame * format.BytesPerSample;
}

/// <summary>A decode that was measured, and what the fit makes of it.</summary>
/// <param name="Measured">Processor seconds a frame on one thread.</param>
/// <param name="Fitted">Processor seconds a frame on one thread.</param>
public sealed record FittedDecode(string Clip, ClipFormat Format, double Measured, double Fitted);
