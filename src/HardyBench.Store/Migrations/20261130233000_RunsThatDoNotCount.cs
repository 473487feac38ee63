using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace HardyBench.Store.Migrations
{
    /// <summary>Why a run says nothing of its machine is stored beside it; runs of earlier versions get it when they are judged again.
    /// </summary>
    public partial class RunsThatDoNotCount : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(name: "NotCounting", table: "Runs", type: "TEXT", nullable: true);
            migrationBuilder.AddColumn<bool>(name: "Disturbed", table: "Runs", type: "INTEGER", nullable: false, defaultValue: false);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(name: "NotCounting", table: "Runs");
            migrationBuilder.DropColumn(name: "Disturbed", table: "Runs");
        }
    }
}
