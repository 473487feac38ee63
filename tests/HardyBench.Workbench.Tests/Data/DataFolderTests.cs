using HardyBench.Workbench.Data;

namespace HardyBench.Workbench.Tests.Data;

public sealed class DataFolderTests
{
    [Fact]
    public void What_was_left_is_deleted_with_all_that_is_in_it_and_what_is_gone_meanwhile_is_no_error()
    {
        var folder = Directory.CreateTempSubdirectory("hardybench-left-");
        var file = new FileInfo(Path.Combine(folder.FullName, "left.mov"));
        File.WriteAllText(file.FullName, "half");

        DataFolder.Discard(folder);
        DataFolder.Discard(folder);
        DataFolder.Discard(file);

        Assert.False(Directory.Exists(folder.FullName));
    }
}
