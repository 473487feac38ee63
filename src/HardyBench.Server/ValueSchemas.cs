using System.Text.Json.Nodes;
using HardyBench.Core.Footage;
using HardyBench.Core.Machines;
using HardyBench.Formats.Json;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace HardyBench.Server;

/// <summary>Describes the values that are written by converters of our own: rasters and rates as pairs of whole numbers,
/// kinds of machine as words.</summary>
internal static class ValueSchemas
{
    public static Task Describe(OpenApiSchema schema, OpenApiSchemaTransformerContext context, CancellationToken stop)
    {
        var names = context.JsonTypeInfo.Type == typeof(Raster) ? ("width", "height")
            : context.JsonTypeInfo.Type == typeof(FrameRate) ? ("numerator", "denominator")
            : ((string, string)?)null;
        if (names is var (first, second))
        {
            schema.Type = JsonSchemaType.Object;
            schema.Properties = new Dictionary<string, IOpenApiSchema>
            {
                [first] = new OpenApiSchema { Type = JsonSchemaType.Integer },
                [second] = new OpenApiSchema { Type = JsonSchemaType.Integer },
            };
            schema.Required = new HashSet<string> { first, second };
        }

        if (context.JsonTypeInfo.Type == typeof(MachineKind))
        {
            schema.Type = JsonSchemaType.String;
            schema.Enum = [.. Enum.GetValues<MachineKind>().Select(kind => JsonValue.Create(BenchJson.Name(kind)))];
        }

        return Task.CompletedTask;
    }
}
