using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace HardyBench.Store.Migrations
{
    /// <inheritdoc />
    public partial class RunLines : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "RunLines",
                columns: table => new
                {
                    RunId = table.Column<long>(type: "INTEGER", nullable: false),
                    Deleted = table.Column<bool>(type: "INTEGER", nullable: false),
                    Timeline = table.Column<string>(type: "TEXT", nullable: false),
                    Machine = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    Scale = table.Column<int>(type: "INTEGER", nullable: false),
                    Ending = table.Column<int>(type: "INTEGER", nullable: false),
                    Holds = table.Column<int>(type: "INTEGER", nullable: false),
                    Wavers = table.Column<int>(type: "INTEGER", nullable: false),
                    Breaks = table.Column<int>(type: "INTEGER", nullable: false),
                    Slots = table.Column<int>(type: "INTEGER", nullable: false),
                    Shown = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_RunLines", x => x.RunId);
                    table.ForeignKey(
                        name: "FK_RunLines_Runs_RunId",
                        column: x => x.RunId,
                        principalTable: "Runs",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            // Scale and ending by number; what a run is found by is put right when it is judged anew, which the new rules ask for.
            migrationBuilder.Sql("""
                INSERT INTO RunLines (RunId, Deleted, Timeline, Machine, Words, Scale, Ending, Holds, Wavers, Breaks, Slots, Shown)
                SELECT Id, DeletedAtUtc IS NOT NULL, TimelineId, MachineId,
                    lower(TimelineId || ' ' || MachineId || ' ' || Scale || ' ' || Differences || ' ' || Ending),
                    CASE Scale WHEN 'Half' THEN 2 WHEN 'Quarter' THEN 4 WHEN 'Eighth' THEN 8 ELSE 1 END,
                    CASE Ending WHEN 'Finished' THEN 1 WHEN 'Stopped' THEN 2 WHEN 'CutShort' THEN 3 ELSE 0 END,
                    0, 0, 0, 0, 0
                FROM Runs
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "RunLines");
        }
    }
}
