using Lowfell.Core.Words;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace Lowfell.Store.Mapping;

/// <summary>Stores a term of the field as its words, and lets the database accept only those words.</summary>
internal sealed class WordsConverter<T>() : ValueConverter<T, string>(v => EnumWords.Of(v), s => EnumWords.Read<T>(s)!.Value)
    where T : struct, Enum;

internal static class WordsMapping
{
    public static void Words<T>(this ModelConfigurationBuilder conventions) where T : struct, Enum
    {
        conventions.Properties<T>().HaveConversion<WordsConverter<T>>().HaveMaxLength(40);
        conventions.Properties<T?>().HaveConversion<WordsConverter<T>>().HaveMaxLength(40);
    }

    /// <summary>Adds <c>check (column in (…))</c> for every property that holds a term.</summary>
    public static void CheckWords(this ModelBuilder model)
    {
        foreach (var entity in model.Model.GetEntityTypes())
        {
            foreach (var property in Flatten(entity))
            {
                var type = Nullable.GetUnderlyingType(property.ClrType) ?? property.ClrType;
                if (!type.IsEnum)
                    continue;
                var column = property.GetColumnName();
                var words = string.Join(", ", Enum.GetNames(type).Select(n => $"'{EnumWords.FromName(n)}'"));
                entity.AddCheckConstraint($"ck_{entity.GetTableName()}_{column}", $"{column} in ({words})");
            }
        }
    }

    private static IEnumerable<IMutableProperty> Flatten(IMutableTypeBase type) =>
        type.GetProperties().Concat(type.GetComplexProperties().SelectMany(c => Flatten(c.ComplexType)));
}
