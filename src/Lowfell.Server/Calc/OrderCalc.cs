using System.Text.Json.Nodes;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Order;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Lowfell.Server.Calc;

/// <summary>Checks a stack that is written out in full, without a store.</summary>
internal static class OrderCalc
{
    public static Results<Ok<OrderOut>, ProblemHttpResult> Check(OrderIn ask)
    {
        var faults = new Faults();
        var view = new OrderReader(faults).Read(ask);
        return view is null || faults.Any
            ? faults.ToProblem()
            : TypedResults.Ok(new OrderOut(OrderCheck.Run(view).Select(f =>
                new OrderFindingOut(f.Rule, f.Severity, f.Layers, f.Title, f.Why, f.Remedies.Select(r => new OrderRemedyOut(r.Id, r.Text)).ToList())).ToList()));
    }

    private static readonly Dictionary<(Type, string), IEnumerable<string>> words = new()
    {
        [(typeof(OrderIn), "substrate")] = EnumWords.All<Substrate>(),
        [(typeof(OrderMaterialIn), "kind")] = EnumWords.All<MaterialKind>(),
        [(typeof(OrderMaterialIn), "carrier")] = EnumWords.All<Carrier>(),
        [(typeof(OrderMaterialIn), "sheen")] = EnumWords.All<Sheen>(),
        [(typeof(OrderMaterialIn), "lustre")] = EnumWords.All<Lustre>(),
        [(typeof(OrderMaterialIn), "thinners")] = EnumWords.All<ThinnerFamily>(),
        [(typeof(OrderLayerIn), "technique")] = EnumWords.All<Technique>(),
        [(typeof(OrderLayerIn), "region")] = EnumWords.All<Region>(),
        [(typeof(OrderLayerIn), "tool")] = EnumWords.All<Tool>(),
        [(typeof(OrderLayerIn), "drying")] = EnumWords.All<DryingMode>(),
        [(typeof(OrderZoneIn), "relief")] = EnumWords.All<Relief>(),
        [(typeof(OrderZoneIn), "handling")] = EnumWords.All<Handling>(),
        [(typeof(OrderZoneIn), "targetSheen")] = EnumWords.All<Sheen>(),
        [(typeof(OrderSetIn), "sheen")] = EnumWords.All<Sheen>(),
    };

    /// <summary>Lists every accepted word in the schema; hyphens and capitals are taken too, which an enumeration could not say.</summary>
    public static Task Describe(OpenApiSchema schema, OpenApiSchemaTransformerContext context, CancellationToken stop)
    {
        foreach (var ((type, property), accepted) in words)
            if (context.JsonTypeInfo.Type == type && schema.Properties?.TryGetValue(property, out var found) == true && found is OpenApiSchema text)
                text.Description = $"One of: {string.Join(", ", accepted)}. Hyphens for spaces and capitals are taken too.";
        if (context.JsonTypeInfo.Type == typeof(OrderIn) && schema.Properties?.TryGetValue("houseRules", out var rules) == true && rules is OpenApiSchema schools)
            schools.Description = string.Join(" ", Schools.All.Select(q => $"{System.Text.Json.JsonNamingPolicy.CamelCase.ConvertName(q.School.ToString())}: {string.Join(" or ", q.Answers.Select(a => $"\"{a.Word}\""))}."));
        if (context.JsonTypeInfo.Type == typeof(OrderFindingOut) && schema.Properties?.TryGetValue("rule", out var rule) == true && rule is OpenApiSchema id)
            id.Enum = OrderCheck.Rules.Select(r => (JsonNode)r.Id).ToList();
        return Task.CompletedTask;
    }
}
