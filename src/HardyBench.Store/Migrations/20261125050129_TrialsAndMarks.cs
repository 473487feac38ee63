using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace HardyBench.Store.Migrations
{
    /// <inheritdoc />
    public partial class TrialsAndMarks : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "Bare",
                table: "Runs",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "ByHand",
                table: "Runs",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "ConditionsDigest",
                table: "Runs",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<DateTime>(
                name: "DeletedAtUtc",
                table: "Runs",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Differences",
                table: "Runs",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Label",
                table: "Runs",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "LagsJson",
                table: "Runs",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<long>(
                name: "TrialId",
                table: "Runs",
                type: "INTEGER",
                nullable: true);

            // What earlier runs were is told by the columns that they have.
            migrationBuilder.Sql("UPDATE Runs SET Bare = (Policy = 'KeepTime' AND Pictures = 0 AND Scale = 'Full')");

            migrationBuilder.CreateTable(
                name: "Marks",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    RunId = table.Column<long>(type: "INTEGER", nullable: false),
                    AtTicks = table.Column<long>(type: "INTEGER", nullable: false),
                    Frame = table.Column<int>(type: "INTEGER", nullable: true),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Marks", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Marks_Runs_RunId",
                        column: x => x.RunId,
                        principalTable: "Runs",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Trials",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    TimelineId = table.Column<string>(type: "TEXT", nullable: false),
                    MachineId = table.Column<string>(type: "TEXT", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    AskedAtUtc = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Owner = table.Column<string>(type: "TEXT", nullable: true),
                    Json = table.Column<string>(type: "TEXT", nullable: false),
                    Problem = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Trials", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Runs_TrialId",
                table: "Runs",
                column: "TrialId");

            migrationBuilder.CreateIndex(
                name: "IX_Marks_RunId",
                table: "Marks",
                column: "RunId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Marks");

            migrationBuilder.DropTable(
                name: "Trials");

            migrationBuilder.DropIndex(
                name: "IX_Runs_TrialId",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "Bare",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "ByHand",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "ConditionsDigest",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "DeletedAtUtc",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "Differences",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "Label",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "LagsJson",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "TrialId",
                table: "Runs");
        }
    }
}
