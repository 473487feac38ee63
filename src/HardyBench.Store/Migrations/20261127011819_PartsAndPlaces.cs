using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace HardyBench.Store.Migrations
{
    /// <inheritdoc />
    public partial class PartsAndPlaces : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "DecodedOn",
                table: "PassageEntity",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "SecondLimiter",
                table: "PassageEntity",
                type: "TEXT",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "DecodedOn",
                table: "PassageEntity");

            migrationBuilder.DropColumn(
                name: "SecondLimiter",
                table: "PassageEntity");
        }
    }
}
