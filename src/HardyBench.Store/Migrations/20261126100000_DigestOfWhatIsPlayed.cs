using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace HardyBench.Store.Migrations
{
    /// <summary>Digests leave words out from now on: those of earlier runs are taken away, and taken anew by
    /// <see cref="RunJudging.RecomputeDigestsAsync"/>.</summary>
    [DbContext(typeof(BenchDatabase))]
    [Migration("20261126100000_DigestOfWhatIsPlayed")]
    public sealed class DigestOfWhatIsPlayed : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder) =>
            migrationBuilder.Sql("UPDATE Runs SET TimelineDigest = '', ConditionsDigest = ''");

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
        }
    }
}
