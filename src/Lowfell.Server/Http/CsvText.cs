using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;

namespace Lowfell.Server.Http;

/// <summary>How CSV goes out, wherever it does: lines end as spreadsheets want it, and what could pass for a formula is escaped.</summary>
internal static class CsvText
{
    public static CsvWriter Writer(TextWriter to) => new(to, new CsvConfiguration(CultureInfo.InvariantCulture)
    {
        NewLine = "\r\n",
        InjectionOptions = InjectionOptions.Escape,

        // By itself it only quotes a line break that is the file's own; one of another kind would end the line for whoever reads it.
        ShouldQuote = value => value.Field?.AsSpan().ContainsAny('\r', '\n') == true || ConfigurationFunctions.ShouldQuote(value),
    });
}
