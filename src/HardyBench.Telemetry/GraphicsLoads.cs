using HardyBench.Core.Playback;

namespace HardyBench.Telemetry;

/// <summary>Graphics units whose driver tells its load in /sys/class/drm.</summary>
public sealed class GraphicsLoads(SystemFiles files) : ILoadReader
{
    private readonly IReadOnlyList<string> cards = CardsOf(files);

    /// <summary>Which unit each index stands for.</summary>
    public IReadOnlyList<LoadSource> Sources =>
        [.. cards.Index().Select(card => new LoadSource(LoadKind.GraphicsBusy, card.Index, card.Item))];

    /// <summary>The kernel's names of the graphics units.</summary>
    public static IReadOnlyList<string> CardsOf(SystemFiles files) => [.. files.Names("sys/class/drm")
        .Where(name => name.StartsWith("card", StringComparison.Ordinal) && !name.Contains('-', StringComparison.Ordinal))];

    public void Read(TimeSpan at, TimeSpan elapsed, List<LoadReading> into)
    {
        foreach (var (index, card) in cards.Index())
        {
            if (files.ReadNumber($"sys/class/drm/{card}/device/gpu_busy_percent") is { } percent)
            {
                into.Add(new LoadReading(at, LoadKind.GraphicsBusy, index, (float)(percent / 100)));
            }

            if (files.ReadNumber($"sys/class/drm/{card}/device/mem_info_vram_used") is { } bytes)
            {
                into.Add(new LoadReading(at, LoadKind.GraphicsMemoryUsed, index, (float)bytes));
            }

            if (files.ReadNumber($"sys/class/drm/{card}/device/mem_info_vram_total") is { } all)
            {
                into.Add(new LoadReading(at, LoadKind.GraphicsMemoryFitted, index, (float)all));
            }

            foreach (var monitor in files.Names($"sys/class/drm/{card}/device/hwmon"))
            {
                // Millionths of a watt and thousandths of a degree.
                var folder = $"sys/class/drm/{card}/device/hwmon/{monitor}";
                Add(
                    LoadKind.GraphicsPower,
                    files.ReadNumber($"{folder}/power1_average") ?? files.ReadNumber($"{folder}/power1_input"),
                    1e-6
                );
                Add(LoadKind.GraphicsTemperature, files.ReadNumber($"{folder}/temp1_input"), 1e-3);
            }

            void Add(LoadKind kind, double? value, double factor)
            {
                if (value is { } read)
                {
                    into.Add(new LoadReading(at, kind, index, (float)(read * factor)));
                }
            }
        }
    }
}
