using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Plan;

/// <summary>Did it match? What was seen tunes the strength of the layer's main material, and is kept with what it changed.</summary>
internal static class Observation
{
    public static async Task<Outcome<ObserveReading>> Take(Guid zoneId, ObserveIn ask, Write write, SetGraphs graphs)
    {
        if (await graphs.OfZone(write.Db, zoneId, write.Stop) is not { } at)
            return Problems.NotFound("zone");
        write.In(at.Graph.Workshop.Id);
        var faults = new Faults();
        var draft = Draft.Read(at, ask.Layers, faults);
        var observed = faults.Colour(ask.Observed, "observed") ?? default;
        var index = Draft.IndexOf(draft, ask.LayerId, faults);
        var main = index >= 0 ? draft!.Layers[index].Main : null;
        if (index >= 0)
            faults.Require(main is not null && main.OpticsSource != OpticsSource.Clear, "layerId", "This layer has no colour of its own to tune. Choose one that has.");
        if (faults.Any)
            return faults.ToProblem();
        var row = await write.Db.Materials.FirstAsync(m => m.Id == main!.Id, write.Stop);
        var position = ask.Position ?? Position.Field;
        var entered = row.Evidence().Resolve(row.Kind, row.Sheen).Optics;
        Seen Predict(Strength strength) => Seen(draft!, index, position, main! with { Optics = strength.Of(entered) });
        var before = row.Strength();
        var after = Calibration.Tune(s => Predict(s).Lab, before, observed.ToLab());
        Seen predicted = Predict(before), tuned = Predict(after);
        var id = ask.Store == true ? await Store(at, index, position, observed, row, before, after, predicted, tuned, write) : (Guid?)null;
        var reading = new ObserveReading(
            row.Id, row.Name, predicted.Colour.ToString(), Round(ColourDifference.Ciede2000(predicted.Lab, observed.ToLab())), DifferenceWords.Of(predicted.Lab, observed.ToLab()),
            tuned.Colour.ToString(), Round(ColourDifference.Ciede2000(tuned.Lab, observed.ToLab())), before.Hiding, before.Tint, after.Hiding, after.Tint, id);
        return id is null ? Outcome<ObserveReading>.Look(TypedResults.Ok(reading)) : reading;
    }

    /// <summary>The colour after one layer when its main material is another, wherever below it that material is used as well.</summary>
    private static Seen Seen(StackView draft, int index, Position position, Material changed)
    {
        var stack = draft.Layers.Take(index + 1)
            .Select(l => l.Paint.Any(p => p.Material.Id == changed.Id) ? l with { Paint = l.Paint.Select(p => p.Material.Id == changed.Id ? new MixPart(changed, p.Parts) : p).ToList() } : l).ToList();
        return draft.Predict(stack).SeenBelow(index + 1)[position];
    }

    private static async Task<Guid> Store(
        Place at, int index, Position position, SrgbColour observed, MaterialRow row, Strength before, Strength after, Seen predicted, Seen tuned, Write write)
    {
        var step = after.Since(before);
        var look = new CalibrationRow
        {
            MaterialId = row.Id,
            At = write.Now,
            Place = $"{at.Design.Name}, {at.Zone.Name}, layer {index + 1}",
            Position = position,
            Observed = observed.ToString(),
            PredictedBefore = predicted.Colour.ToString(),
            PredictedAfter = tuned.Colour.ToString(),
            HidingStep = (decimal)step.Hiding,
            TintStep = (decimal)step.Tint,
        };
        write.Db.Add(look);
        (row.HidingFactor, row.TintFactor) = ((decimal)after.Hiding, (decimal)after.Tint);
        row.Looks++;
        await write.Save();
        return look.Id;
    }

    private static double Round(double difference) => Math.Round(difference, 2);
}
