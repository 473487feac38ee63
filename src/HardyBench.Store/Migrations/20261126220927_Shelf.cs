using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace HardyBench.Store.Migrations
{
    /// <summary>A machine has several units of a kind, a run's role is told apart from its words, and what was found stands beside a run: earlier runs
    /// are judged anew by <see cref="RunJudging.JudgeAgainAsync"/>.</summary>
    public partial class Shelf : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "NotesJson",
                table: "Runs",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "MachineDigest",
                table: "Runs",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<int>(
                name: "Passage",
                table: "Runs",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Rules",
                table: "Runs",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "Side",
                table: "Runs",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Failure",
                table: "PassageEntity",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<double>(
                name: "Headroom",
                table: "PassageEntity",
                type: "REAL",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "LongestFreezeTicks",
                table: "PassageEntity",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<double>(
                name: "ShownRate",
                table: "PassageEntity",
                type: "REAL",
                nullable: false,
                defaultValue: 0.0);

            migrationBuilder.AddColumn<int>(
                name: "StartUpDrops",
                table: "PassageEntity",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "Teeth",
                table: "PassageEntity",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<DateTime>(
                name: "DeletedAtUtc",
                table: "Documents",
                type: "TEXT",
                nullable: true);

            migrationBuilder.Sql("UPDATE Runs SET Passage = CAST(substr(Label, 9) AS INTEGER) - 1 WHERE Label LIKE 'passage %'");
            migrationBuilder.Sql("UPDATE Runs SET Side = CASE WHEN Label LIKE 'as set,%' THEN 'First' ELSE 'Second' END WHERE Label LIKE 'as set,%' OR Label LIKE 'changed,%'");
            migrationBuilder.Sql(SeveralUnits("Runs", "HeaderJson", "$.machine", "1"));
            migrationBuilder.Sql(SeveralUnits("Documents", "Json", "$", "Kind = 'machine'"));
        }

        /// <summary>One graphics unit, one media engine and one drive become lists; the one drive held everything.</summary>
        private static string SeveralUnits(string table, string column, string machine, string which)
        {
            string Json(string member) => $"json_extract({column}, '{machine}.{member}')";
            string List(string member) => $"CASE json_type({column}, '{machine}.{member}') WHEN 'object' THEN json_array({Json(member)}) ELSE json_array() END";
            var drive = $"json_object('roles', json_array('media', 'project', 'renders', 'system'), 'kind', {Json("mediaDrive.kind")}, "
                + $"'readMegabytesPerSecond', {Json("mediaDrive.megabytesPerSecond")}, 'writeMegabytesPerSecond', {Json("mediaDrive.megabytesPerSecond")}, "
                + $"'latencyMilliseconds', round(1000 * CAST(substr({Json("mediaDrive.latency")}, 7) AS REAL), 6))";
            return $"UPDATE {table} SET {column} = json_remove(json_set({column}, '{machine}.graphics', {List("graphics")}, '{machine}.mediaEngines', {List("mediaEngine")}, "
                + $"'{machine}.drives', CASE json_type({column}, '{machine}.mediaDrive') WHEN 'object' THEN json_array({drive}) ELSE json_array() END), "
                + $"'{machine}.mediaEngine', '{machine}.mediaDrive') "
                + $"WHERE {which} AND json_valid({column}) AND json_type({column}, '{machine}') = 'object' AND json_type({column}, '{machine}.drives') IS NULL";
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "NotesJson",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "MachineDigest",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "Passage",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "Rules",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "Side",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "Failure",
                table: "PassageEntity");

            migrationBuilder.DropColumn(
                name: "Headroom",
                table: "PassageEntity");

            migrationBuilder.DropColumn(
                name: "LongestFreezeTicks",
                table: "PassageEntity");

            migrationBuilder.DropColumn(
                name: "ShownRate",
                table: "PassageEntity");

            migrationBuilder.DropColumn(
                name: "StartUpDrops",
                table: "PassageEntity");

            migrationBuilder.DropColumn(
                name: "Teeth",
                table: "PassageEntity");

            migrationBuilder.DropColumn(
                name: "DeletedAtUtc",
                table: "Documents");
        }
    }
}
