using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Lowfell.Server.Http;

/// <summary>The OpenAPI document, from which the page's client types are generated.</summary>
internal static class ApiDocument
{
    private const string Name = "v1";

    public static void Configure(OpenApiOptions options)
    {
        options.OpenApiVersion = OpenApiSpecVersion.OpenApi3_0;
        options.AddSchemaTransformer(Calc.OrderCalc.Describe);
        options.AddDocumentTransformer((document, _, _) =>
        {
            document.Info = new OpenApiInfo { Title = "Lowfell", Version = "1", Description = "Layers, colours, order and amounts for tabletop terrain." };
            document.Servers = [];
            return Task.CompletedTask;
        });
    }

    /// <summary>Writes the document without starting a server or touching a database.</summary>
    public static async Task Write(IServiceProvider services, string file)
    {
        var provider = services.GetRequiredKeyedService<IOpenApiDocumentProvider>(Name);
        var document = await provider.GetOpenApiDocumentAsync();
        await File.WriteAllTextAsync(file, await document.SerializeAsJsonAsync(OpenApiSpecVersion.OpenApi3_0));
    }
}
