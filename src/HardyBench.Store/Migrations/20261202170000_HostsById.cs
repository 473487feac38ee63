using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace HardyBench.Store.Migrations
{
    /// <summary>The machine that the program runs on was called "this" in every data folder. Where something was asked of it, that stays its
    /// id; what was not said of it is told when the folder is opened.</summary>
    [DbContext(typeof(BenchDatabase))]
    [Migration("20261202170000_HostsById")]
    public class HostsById : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder) => migrationBuilder.Sql(
            """
            INSERT INTO Documents (Kind, Id, "Order", Version, Json)
            SELECT 'host', 'this', 1, 0, json_object('id', 'this', 'name', 'This machine', 'fingerprint', NULL, 'firstUsed',
                coalesce((SELECT strftime('%Y-%m-%dT%H:%M:%SZ', min(StartedAtUtc)) FROM Runs WHERE MachineId = 'this'),
                    strftime('%Y-%m-%dT%H:%M:%SZ', 'now')))
            WHERE EXISTS (SELECT 1 FROM Runs WHERE MachineId = 'this') OR EXISTS (SELECT 1 FROM Trials WHERE MachineId = 'this')
                OR EXISTS (SELECT 1 FROM Documents WHERE Json LIKE '%"this"%' OR Id = 'this-twin')
            """);

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            migrationBuilder.Sql("DELETE FROM Documents WHERE Kind = 'host'");
    }
}
