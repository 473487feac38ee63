using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace HardyBench.Store;

/// <summary>Stores values of an enumeration by name. A name that nobody knows, as in a damaged row, reads as a stand-in value, so that
/// one such row keeps no other from being read.</summary>
/// <param name="unknown">What an unknown name reads as.</param>
internal sealed class KnownNames<T>(T unknown)
    : ValueConverter<T, string>(value => value.ToString(), name => KnownNames.Read<T>(name) ?? unknown)
    where T : struct, Enum;

/// <summary>The same for a column that may be empty: an unknown name reads as nothing.</summary>
internal sealed class KnownNamesOrNone<T>()
    : ValueConverter<T?, string?>(value => value == null ? null : value.Value.ToString(), name => KnownNames.Read<T>(name))
    where T : struct, Enum;

internal static class KnownNames
{
    public static T? Read<T>(string? name)
        where T : struct, Enum => Enum.TryParse<T>(name, out var value) && Enum.IsDefined(value) ? value : null;
}
