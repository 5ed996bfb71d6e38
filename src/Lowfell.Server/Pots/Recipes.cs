using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Pots;

/// <summary>A recipe as it is entered: parts of each material, thinner too.</summary>
public sealed record RecipeIn(uint? Version, string? Name, string? Note, IReadOnlyList<JarPartIn?>? Parts);

public sealed record RecipePart(Guid MaterialId, string Name, decimal Parts);

/// <summary>A recipe that was kept: as parts of a pot, and as the paint and dilution of a layer.</summary>
public sealed record RecipeCard(
    Guid Id, uint Version, string Name, string Note, IReadOnlyList<RecipePart> Parts, IReadOnlyList<PaintDto> Paint, DilutionDto? Dilution, string Thinned, string Colour);

public sealed record RecipeTold(Guid Id, uint Version);

/// <summary>A mix for a layer of a zone's treatment; version is the treatment's that it was chosen from.</summary>
public sealed record LayerMixIn(uint? Version, Guid? LayerId, IReadOnlyList<JarPartIn?>? Parts);

public sealed record LayerMixTold(Guid ZoneId, uint Version);

/// <summary>Mixes worth a name, and mixes put onto layers.</summary>
internal static class Recipes
{
    private const int Most = 500, LongestNote = 500;

    public static void MapRecipes(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api").WithTags("Pots");
        group.MapGet("/workshops/{workshopId:guid}/recipes", List).WithName("recipes").WithSummary("The mixes that were kept under a name.").ProducesProblem(404);
        group.MapPost("/workshops/{workshopId:guid}/recipes", Keep).WithName("keepRecipe").Writes<RecipeTold>(StatusCodes.Status201Created);
        group.MapPut("/recipes/{id:guid}", Change).WithName("changeRecipe").Writes<RecipeTold>();
        group.MapDelete("/recipes/{id:guid}", Remove).WithName("removeRecipe").WritesSilently();
        group.MapPut("/zones/{zoneId:guid}/mix", OntoLayer).WithName("mixOntoLayer").WithSummary("Has a layer laid with this mix from now on; it is a new version of the treatment.").Writes<LayerMixTold>();
    }

    private static async Task<Results<Ok<IReadOnlyList<RecipeCard>>, ProblemHttpResult>> List(Guid workshopId, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (!await db.Workshops.AnyAsync(w => w.Id == workshopId, stop))
            return Problems.NotFound("workshop");
        var shelf = (await graphs.ShelfOf(db, workshopId, stop)).Materials;
        var rows = await db.Recipes.AsNoTracking().Where(r => r.WorkshopId == workshopId).Include(r => r.Parts.OrderBy(p => p.Position)).OrderBy(r => r.Name).ToListAsync(stop);
        return TypedResults.Ok<IReadOnlyList<RecipeCard>>(rows.Select(r => Card(r, shelf)).ToList());
    }

    private static RecipeCard Card(RecipeRow row, IReadOnlyDictionary<Guid, Material> shelf)
    {
        var recipe = Recipe.Of(row.Parts.Select(p => new MixPart(shelf[p.MaterialId], Core.Mixing.Parts.Of(p.Parts))));
        var (paint, dilution) = recipe.Whole().AsPaint();
        return new RecipeCard(
            row.Id, row.Version, row.Name, row.Note, row.Parts.Select(p => new RecipePart(p.MaterialId, shelf[p.MaterialId].Name, p.Parts)).ToList(),
            paint.Select(p => new PaintDto(p.Material.Id, p.Parts.ToDecimal())).ToList(),
            dilution is null ? null : new DilutionDto(dilution.Thinner.Id, dilution.PaintParts.ToDecimal(), dilution.ThinnerParts.ToDecimal()),
            dilution is null ? "neat" : dilution.ToString(), PotColour.InTheJar(paint).ToString());
    }

    private static async Task<Outcome<RecipeTold>> Keep(Guid workshopId, RecipeIn entry, Write write, SetGraphs graphs)
    {
        if (!await write.Db.Workshops.AnyAsync(w => w.Id == workshopId, write.Stop))
            return Problems.NotFound("workshop");
        write.In(workshopId);
        var faults = new Faults();
        faults.Text(entry.Name, "name", 120);
        faults.Text(entry.Note, "note", LongestNote, needed: false);
        var recipe = JarReader.ReadRecipe(entry.Parts, "parts", (await graphs.ShelfOf(write.Db, workshopId, write.Stop)).Materials, faults);
        faults.Require(await write.Db.Recipes.CountAsync(r => r.WorkshopId == workshopId, write.Stop) < Most, "name", $"At most {Most} recipes are kept. Remove one first.");
        if (faults.Any)
            return faults.ToProblem();
        var row = new RecipeRow { WorkshopId = workshopId, Name = entry.Name!.Trim(), Note = entry.Note?.Trim() ?? "" };
        if (await Taken(row, write) is { } taken)
            return taken;
        Fill(row, recipe!);
        write.Db.Add(row);
        write.Says($"Kept the recipe {row.Name}");
        await write.Save();
        return new RecipeTold(row.Id, row.Version);
    }

    private static async Task<Outcome<RecipeTold>> Change(Guid id, RecipeIn entry, Write write, SetGraphs graphs)
    {
        if (await Find(id, write) is not { } row)
            return Problems.NotFound("recipe");
        var faults = new Faults();
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        if (entry.Name is not null)
            faults.Text(entry.Name, "name", 120);
        faults.Text(entry.Note, "note", LongestNote, needed: false);
        var recipe = entry.Parts is null ? null : JarReader.ReadRecipe(entry.Parts, "parts", (await graphs.ShelfOf(write.Db, row.WorkshopId, write.Stop)).Materials, faults);
        if (faults.Any)
            return faults.ToProblem();
        write.Says(entry.Name is { } to && to.Trim() != row.Name ? $"Renamed the recipe {row.Name} to {to.Trim()}" : $"Changed the recipe {row.Name}");
        (row.Name, row.Note) = (entry.Name?.Trim() ?? row.Name, entry.Note?.Trim() ?? row.Note);
        if (await Taken(row, write) is { } taken)
            return taken;
        if (!await write.Fits(row, entry.Version))
            return Problems.Changed("recipe", new RecipeTold(row.Id, (uint)write.Db.Entry(row).Property(nameof(row.Version)).OriginalValue!));
        if (recipe is not null)
        {
            write.Db.RemoveRange(row.Parts);
            await write.Save();
            row.Parts.Clear();
            Fill(row, recipe);
            write.Db.AddRange(row.Parts);
        }

        await write.Save();
        return new RecipeTold(row.Id, row.Version);
    }

    private static async Task<Outcome<Nothing>> Remove(Guid id, Write write)
    {
        if (await Find(id, write) is not { } row)
            return Problems.NotFound("recipe");
        write.Says($"Removed the recipe {row.Name}", removes: true);
        write.Db.RemoveRange(row.Parts);
        write.Db.Remove(row);
        await write.Save();
        return new Nothing();
    }

    private static async Task<RecipeRow?> Find(Guid id, Write write)
    {
        var row = await write.Db.Recipes.Include(r => r.Parts).FirstOrDefaultAsync(r => r.Id == id, write.Stop);
        if (row is not null)
            write.In(row.WorkshopId);
        return row;
    }

    private static async Task<ProblemHttpResult?> Taken(RecipeRow row, Write write) =>
        await write.Db.Recipes.AnyAsync(r => r.WorkshopId == row.WorkshopId && r.Name == row.Name && r.Id != row.Id, write.Stop)
            ? Problems.Taken("name", "A recipe of this name is kept already.") : null;

    private static void Fill(RecipeRow row, Recipe recipe)
    {
        var position = 0;
        foreach (var part in recipe.Parts)
            row.Parts.Add(new RecipePartRow { RecipeId = row.Id, Position = position++, MaterialId = part.Material.Id, Parts = part.Parts.ToDecimal() });
    }

    private static async Task<Outcome<LayerMixTold>> OntoLayer(Guid zoneId, LayerMixIn entry, Write write, SetGraphs graphs)
    {
        if (await graphs.OfZone(write.Db, zoneId, write.Stop) is not { } at)
            return Problems.NotFound("zone");
        write.In(at.Graph.Workshop.Id);
        var treatment = at.Graph.Treatments[at.Zone.TreatmentId];
        var faults = new Faults();
        var recipe = JarReader.ReadRecipe(entry.Parts, "parts", at.Graph.Materials, faults);
        var index = at.Layers.ToList().FindIndex(l => l.Id == entry.LayerId);
        faults.Require(index >= 0, "layerId", "This treatment has no such layer. Look at the plan again.");
        if (faults.Any)
            return faults.ToProblem();
        if (recipe!.Parts.Any(p => p.Parts.ToDecimal() > LayerWords.MostParts))
            recipe = recipe.Plain();
        var (paint, dilution) = recipe.Whole().AsPaint();
        var layers = at.Layers.Select((l, i) => i == index ? l with { Paint = paint, Dilution = dilution } : l).ToList();
        if (await new StackWriter(write, at.Graph.Materials).Store([TreatmentEdit.Of(at.Graph, at.Zone, entry.Version ?? treatment.Version, layers)]) is not { } stored)
            return Problems.Of(StatusCodes.Status409Conflict, "changed-elsewhere", "The stack was changed in another window meanwhile. Look again, then put the mix onto it.");
        return new LayerMixTold(zoneId, stored[0]);
    }
}
