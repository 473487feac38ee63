using HardyBench.Formats.Files;

namespace HardyBench.Formats.Tests.Files;

public sealed class RealPathTests : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("hardybench-path-").FullName;

    public void Dispose()
    {
        GC.SuppressFinalize(this);
        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public void A_file_is_within_its_folder_also_where_the_folder_is_a_link()
    {
        var (real, link) = (Directory.CreateDirectory(Path.Combine(folder, "real")).FullName, Path.Combine(folder, "link"));
        Directory.CreateSymbolicLink(link, real);
        File.WriteAllText(Path.Combine(real, "a"), "a");

        Assert.True(RealPath.IsWithin(Path.Combine(link, "a"), link));
        Assert.True(RealPath.IsWithin(Path.Combine(link, "a"), real));
        Assert.Equal(Path.Combine(RealPath.Of(real), "a"), RealPath.Of(Path.Combine(link, "a")));
    }

    [Fact]
    public void A_link_to_a_link_that_leads_out_is_not_within()
    {
        var inside = Directory.CreateDirectory(Path.Combine(folder, "inside")).FullName;
        File.WriteAllText(Path.Combine(folder, "secret"), "s");
        // A folder within that is a link to the folder above; the file is reached through it.
        Directory.CreateSymbolicLink(Path.Combine(inside, "up"), "..");
        File.CreateSymbolicLink(Path.Combine(inside, "looks-fine"), "up/secret");

        Assert.False(RealPath.IsWithin(Path.Combine(inside, "up", "secret"), inside));
        Assert.False(RealPath.IsWithin(Path.Combine(inside, "looks-fine"), inside));
    }

    [Fact]
    public void Links_in_a_circle_are_refused()
    {
        File.CreateSymbolicLink(Path.Combine(folder, "a"), "b");
        File.CreateSymbolicLink(Path.Combine(folder, "b"), "a");

        Assert.Throws<IOException>(() => RealPath.Of(Path.Combine(folder, "a")));
    }
}
