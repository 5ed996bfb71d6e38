using Lowfell.Core.Materials;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order;

/// <summary>A question of the craft on which practitioners disagree.</summary>
public enum School
{
    PinWashSheen, Pigments, SandGlue, BaseTexture, PaintOnFrame, HotAirOnWash, RecessColour, DryBrushCleaning, NaturalSand, SolventProducts,
}

/// <summary>One answer: the word it is stored by, what it gains and what it costs.</summary>
public sealed record SchoolAnswer(string Word, string Text, string Gains, string Costs);

/// <summary>A school as a question with both its answers; the first is the cautious one.</summary>
public sealed record SchoolQuestion(School School, string Question, SchoolAnswer First, SchoolAnswer Second)
{
    public IReadOnlyList<SchoolAnswer> Answers => [First, Second];

    /// <summary>The answer in force.</summary>
    public SchoolAnswer In(HouseRules rules) => Answers.First(a => a.Word == Schools.Word(rules, School));
}

/// <summary>Every school with its two answers.</summary>
public static class Schools
{
    public static readonly IReadOnlyList<SchoolQuestion> All =
    [
        Ask(School.PinWashSheen, "What sheen lies under a pin wash?",
            (Sheen.Satin, "Satin", "The wash stays where it is put and leaves a little tint.", "It cleans up more slowly than from gloss."),
            (Sheen.Gloss, "Gloss", "It runs furthest along a joint and wipes off fastest.", "It can run where it should not, and the gloss needs a matt coat later.")),
        Ask(School.Pigments, "What becomes of pigments at the end?",
            (PigmentSchool.FixWhenHandled, "Fix them on pieces that are handled", "They survive play and packing.", "A fixer takes some of the chalkiness away."),
            (PigmentSchool.LeaveLoose, "Leave them loose", "The driest, dustiest look.", "Every touch takes some away and leaves a mark.")),
        Ask(School.SandGlue, "What holds sand on a base?",
            (SandSchool.PVA, "PVA", "Time to push grains about; cheap.", "Slow, creeps, can peel, and wants a thin sealing coat."),
            (SandSchool.InstantGlue, "Instant glue", "Holds in a minute and stays put.", "Cannot be moved once it grips; vapour and skin need care.")),
        Ask(School.BaseTexture, "When is a base textured?",
            (BaseTextureSchool.BeforePriming, "Before priming", "One primer holds everything, and paint grips all of it.", "Feet and hulls must be masked or added later."),
            (BaseTextureSchool.AfterPainting, "After the model is painted", "The model is painted without grit in the way.", "Texture goes on without a primer over it, and grains may stray on finished paint.")),
        Ask(School.PaintOnFrame, "Paint on the casting frame?",
            (FrameSchool.OnFrame, "On the frame", "Something to hold, and small parts stay in order.", "Gates stay bare and must be trimmed and touched up."),
            (FrameSchool.CutOutFirst, "Cut out first", "Gates are cleaned before any paint.", "Small parts need holders and get lost.")),
        Ask(School.HotAirOnWash, "May a wash be dried with hot air?",
            (HotAirSchool.Never, "Never", "It settles by itself and dries without rings.", "It takes its time."),
            (HotAirSchool.Allowed, "Allowed for water-based washes", "The next layer can follow in minutes.", "Moving air pushes the wash about and can leave rings.")),
        Ask(School.RecessColour, "When do recesses get their colour?",
            (RecessSchool.Before, "Before the main colour", "The main colour is dragged over and nobody cuts in.", "The main colour must stay out of the recesses."),
            (RecessSchool.After, "After it", "The recess colour is exactly where it is put.", "Cutting in along every joint takes hours over a set.")),
        Ask(School.DryBrushCleaning, "Is the brush cleaned between dry-brush steps?",
            (DryBrushSchool.CarryOver, "A little is carried over", "Softer steps from one colour to the next.", "The last step is a little darker than its pot."),
            (DryBrushSchool.Clean, "Cleaned each time", "Crisp steps in the pot's own colour.", "Slower, and edges can look chalky.")),
        Ask(School.NaturalSand, "Is natural sand painted?",
            (SandColourSchool.Painted, "Painted like everything else", "It matches the set, and paint holds the grains.", "Two more layers on every base."),
            (SandColourSchool.Natural, "Left natural with a shade over it", "Real grains, quickly done.", "It matches nothing else exactly, and only the glue holds it.")),
        Ask(School.SolventProducts, "How far are solvent products used?",
            (SolventSchool.FullProcess, "The full enamel-and-oil process", "Long working times and the smoothest blends.", "Varnish barriers, vapour, long waits and hazardous waste."),
            (SolventSchool.WaterOnly, "Water-based products only", "No vapour to speak of, short waits, clean-up with water.", "Washes and streaks must be right within minutes.")),
    ];

    /// <summary>The word of the answer in force.</summary>
    public static string Word(HouseRules rules, School school) => school switch
    {
        School.PinWashSheen => EnumWords.Of(rules.PinWashSheen),
        School.Pigments => EnumWords.Of(rules.Pigments),
        School.SandGlue => EnumWords.Of(rules.SandGlue),
        School.BaseTexture => EnumWords.Of(rules.BaseTexture),
        School.PaintOnFrame => EnumWords.Of(rules.PaintOnFrame),
        School.HotAirOnWash => EnumWords.Of(rules.HotAirOnWash),
        School.RecessColour => EnumWords.Of(rules.RecessColour),
        School.DryBrushCleaning => EnumWords.Of(rules.DryBrushCleaning),
        School.NaturalSand => EnumWords.Of(rules.NaturalSand),
        _ => EnumWords.Of(rules.SolventProducts),
    };

    /// <summary>The rules with another answer to one school; null when the word is none of its answers.</summary>
    public static HouseRules? With(HouseRules rules, School school, string word)
    {
        if (All.First(q => q.School == school).Answers.All(a => a.Word != word))
            return null;
        return school switch
        {
            School.PinWashSheen => rules with { PinWashSheen = Read<Sheen>(word) },
            School.Pigments => rules with { Pigments = Read<PigmentSchool>(word) },
            School.SandGlue => rules with { SandGlue = Read<SandSchool>(word) },
            School.BaseTexture => rules with { BaseTexture = Read<BaseTextureSchool>(word) },
            School.PaintOnFrame => rules with { PaintOnFrame = Read<FrameSchool>(word) },
            School.HotAirOnWash => rules with { HotAirOnWash = Read<HotAirSchool>(word) },
            School.RecessColour => rules with { RecessColour = Read<RecessSchool>(word) },
            School.DryBrushCleaning => rules with { DryBrushCleaning = Read<DryBrushSchool>(word) },
            School.NaturalSand => rules with { NaturalSand = Read<SandColourSchool>(word) },
            _ => rules with { SolventProducts = Read<SolventSchool>(word) },
        };
    }

    private static T Read<T>(string word) where T : struct, Enum => EnumWords.Read<T>(word)!.Value;

    private static SchoolQuestion Ask<T>(School school, string question, (T Value, string Text, string Gains, string Costs) first, (T Value, string Text, string Gains, string Costs) second)
        where T : struct, Enum =>
        new(school, question,
            new(EnumWords.Of(first.Value), first.Text, first.Gains, first.Costs),
            new(EnumWords.Of(second.Value), second.Text, second.Gains, second.Costs));
}
