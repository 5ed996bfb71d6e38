using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Mixing.Pots;

/// <summary>A drawdown of a mix over the black and the white half of a card.</summary>
public readonly record struct Drawn(Reflectance OverBlack, Reflectance OverWhite)
{
    /// <summary>CIEDE2000 to another, the larger of both halves.</summary>
    public double DifferenceTo(Drawn other) => Math.Max(
        ColourDifference.Ciede2000(OverBlack.ToLab(), other.OverBlack.ToLab()), ColourDifference.Ciede2000(OverWhite.ToLab(), other.OverWhite.ToLab()));
}

/// <summary>Predicted colours of what is in a pot.</summary>
public static class PotColour
{
    /// <summary>Wet film of one brushed coat, um: how paint from a pot is tried on a card.</summary>
    public static readonly double BrushedUm = TechniqueTable.For(Technique.BaseCoat).FilmUm.Usual;

    /// <summary>A card after some brushed coats of a mix; bare when the mix has no colour.</summary>
    public static Drawn Draw(IReadOnlyList<MixPart> paint, Dilution? dilution, double coats = 1, double filmUm = 0)
    {
        var optics = Laying.PerUm(new Layer { Technique = Technique.BaseCoat, Paint = paint, Dilution = dilution });
        var (black, white) = optics.OnCard(coats * (filmUm > 0 ? filmUm : BrushedUm), Shine.Of(paint));
        return new Drawn(black, white);
    }

    /// <inheritdoc cref="Draw(IReadOnlyList{MixPart}, Dilution?, double, double)"/>
    public static Drawn Draw(PotContents contents, double coats = 1, double filmUm = 0)
    {
        var (paint, dilution) = contents.AsPaint();
        return Draw(paint, dilution, coats, filmUm);
    }

    /// <summary>The colour in the jar: so deep that nothing shows through. White for a clear one.</summary>
    public static SrgbColour InTheJar(IReadOnlyList<MixPart> paint)
    {
        var optics = Laying.PerUm(new Layer { Technique = Technique.BaseCoat, Paint = paint });
        return optics.OnCard(JarUm, Shine.Of(paint)).OverWhite.ToSrgb();
    }

    /// <summary>As deep as light gets in a jar of paint, um.</summary>
    private const double JarUm = 1000;
}
