using System.Reflection;
using System.Runtime.CompilerServices;
using HardyBench.Core;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace HardyBench.Workbench.Tests;

public sealed class FailuresTests
{
    /// <summary>Caught before anybody else sees them.</summary>
    private static readonly string[] CaughtInside = [];

    [Fact]
    public void A_failure_of_the_drive_says_what_was_kept_and_what_to_do()
    {
        const int Full = 13;
        var full = new DbUpdateException("An error occurred while saving.", new SqliteException("SQLite Error 13: 'database or disk is full'.", Full));

        Assert.Equal(
            "The drive with the data cannot be written: SQLite Error 13: 'database or disk is full'. What was saved before is kept. Free some "
                + "space, then try again.",
            Failures.WordsOf(full));
        Assert.StartsWith("There is no clip 'gone'.", Failures.WordsOf(new UnknownThingException("clip", "gone", [])), StringComparison.Ordinal);
    }

    /// <summary>A process or a connection that has ended is a failure of reading and writing, too.</summary>
    [Fact]
    public void Only_a_failure_of_the_drive_is_taken_for_one()
    {
        const int BrokenPipe = 32, NoSpaceLeft = 28;

        Assert.Null(Failures.KindOf(new IOException("Broken pipe", BrokenPipe)));
        Assert.Null(Failures.KindOf(new IOException("It was reset.", new System.Net.Sockets.SocketException())));
        Assert.Equal(FailureKind.Storage, Failures.KindOf(new IOException("No space left on device", NoSpaceLeft)));
        Assert.Equal(FailureKind.Storage, Failures.KindOf(new IOException("Something else.")));
    }

    /// <summary>A new exception that is not in the table would be reported as unexpected.</summary>
    [Fact]
    public void Every_exception_of_our_own_has_a_kind()
    {
        string[] libraries = ["Core", "Formats", "Media", "Store", "Telemetry", "Workbench"];
        var own = libraries.SelectMany(name => Assembly.Load($"HardyBench.{name}").GetTypes())
            .Where(type => type.IsAssignableTo(typeof(Exception)) && type.IsPublic).ToList();

        Assert.InRange(own.Count, 15, 100);
        Assert.Equal(
            CaughtInside,
            own.Where(type => Failures.KindOf((Exception)RuntimeHelpers.GetUninitializedObject(type)) is null).Select(type => type.Name));
    }
}
