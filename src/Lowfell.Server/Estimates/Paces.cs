using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Estimates;

/// <summary>Figures of a technique as the workshop has them; null keeps the rule of thumb, and all null takes it again. <paramref name="Version"/> is the workshop's.</summary>
public sealed record PaceIn(uint? Version, PaceFigures? Figures);

public sealed record PaceTold(Guid WorkshopId, uint Version);

/// <summary>How quick the hands of a workshop are, technique by technique.</summary>
internal static class Paces
{
    private const double MostMinutes = 600, MostPerUnit = 60;

    public static void Map(IEndpointRouteBuilder app) =>
        app.MapPut("/api/workshops/{workshopId:guid}/paces/{technique}", Change).WithTags("Time").WithName("changePace").WithSummary("What the minutes of a technique come of in this workshop.").Writes<PaceTold>();

    /// <summary>A technique by its word; null where there is none.</summary>
    public static Technique? Named(string word) => Enum.GetValues<Technique>().Where(t => EnumWords.Of(t) == word).Select(t => (Technique?)t).FirstOrDefault();

    /// <summary>The rules of thumb of a technique with its usual tool.</summary>
    public static PaceFigures Usual(Technique technique)
    {
        var f = TechniqueTable.For(technique);
        return new(f.SetUpMinutes, f.CleanUpMinutes, f.MinutesPerCm2, f.MinutesPerCm, HandsOn.HandlingMinutes, f.MinutesPerDetail, HandsOn.LearningPerDoubling, 1, HandsOn.TypicalError);
    }

    private static async Task<Outcome<PaceTold>> Change(Guid workshopId, string technique, PaceIn entry, Write write)
    {
        await write.Hold<WorkshopRow>(workshopId);
        if (await write.Db.Workshops.FirstOrDefaultAsync(w => w.Id == workshopId, write.Stop) is not { } row)
            return Problems.NotFound("workshop");
        if (Named(technique) is not { } which)
            return Problems.NotFound("technique");
        write.In(workshopId);
        var faults = new Faults();
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        Check(entry.Figures, faults);
        if (faults.Any)
            return faults.ToProblem();
        write.Says($"Changed what {technique} takes");
        var own = StoredPace.Read(row.Paces).Own.ToDictionary();
        if (entry.Figures is null || entry.Figures == new PaceFigures())
            own.Remove(which);
        else
            own[which] = entry.Figures;
        row.Paces = StoredPace.Write(new Pace(own));
        if (!await write.Fits(row, entry.Version))
            return Problems.Changed("workshop", new PaceTold(workshopId, (uint)write.Db.Entry(row).Property(nameof(row.Version)).OriginalValue!));
        await write.Save();
        return new PaceTold(row.Id, row.Version);
    }

    private static void Check(PaceFigures? f, Faults faults)
    {
        void In(double? value, string field, double least, double most) =>
            faults.Require(value is not { } v || (double.IsFinite(v) && v >= least && v <= most), $"figures.{field}", $"Give a number from {least} to {most}, or leave it out for the rule of thumb.");
        In(f?.SetUpMinutes, "setUpMinutes", 0, MostMinutes);
        In(f?.CleanUpMinutes, "cleanUpMinutes", 0, MostMinutes);
        In(f?.MinutesPerCm2, "minutesPerCm2", 0, MostPerUnit);
        In(f?.MinutesPerCm, "minutesPerCm", 0, MostPerUnit);
        In(f?.MinutesPerPiece, "minutesPerPiece", 0, MostMinutes);
        In(f?.MinutesPerDetail, "minutesPerDetail", 0, MostPerUnit);
        In(f?.Learning, "learning", 0.5, 1);
        In(f?.Factor, "factor", 0.1, 10);
        In(f?.Error, "error", 0.01, 2);
    }
}
