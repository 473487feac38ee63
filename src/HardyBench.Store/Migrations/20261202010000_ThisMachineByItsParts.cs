using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace HardyBench.Store.Migrations
{
    /// <summary>Runs of the machine that the program runs on had a digest that said only so; they get that of its parts as they were
    /// described then, by <see cref="RunJudging.RecomputeDigestsAsync"/>.</summary>
    public partial class ThisMachineByItsParts : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder) =>
            migrationBuilder.Sql("UPDATE Runs SET MachineDigest = '' WHERE MachineDigest = 'this'");

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            migrationBuilder.Sql("UPDATE Runs SET MachineDigest = 'this' WHERE MachineId = 'this'");
    }
}
