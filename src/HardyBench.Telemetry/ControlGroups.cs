namespace HardyBench.Telemetry;

/// <summary>Where the control groups of this process have their files, by either version of them (cgroups(7)).</summary>
internal static class ControlGroups
{
    private const string Root = "sys/fs/cgroup";

    /// <summary>Folders of the group that this process is in and of those around it, for one controller.</summary>
    public static IEnumerable<(string Folder, bool IsFirstVersion)> Around(SystemFiles files, string controller) =>
        (files.ReadText("proc/self/cgroup") ?? string.Empty).Split('\n')
            .Select(line => line.Split(':', 3))
            .Where(fields => fields.Length == 3)
            .SelectMany(fields => fields[1].Split(',').Contains(controller)
                ? Upwards($"{Root}/{controller}", fields[2]).Select(folder => (folder, true))
                : fields[1].Length == 0 ? Upwards(Root, fields[2]).Select(folder => (folder, false)) : []);

    private static IEnumerable<string> Upwards(string root, string path)
    {
        for (var rest = path.TrimEnd('/'); rest.Length > 0; rest = rest[..rest.LastIndexOf('/')])
        {
            yield return root + rest;
        }

        yield return root;
    }
}
