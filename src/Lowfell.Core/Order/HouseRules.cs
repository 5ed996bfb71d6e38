using Lowfell.Core.Materials;
using Lowfell.Core.Mixing.Reading;

namespace Lowfell.Core.Order;

/// <summary>What to do with pigments at the end.</summary>
public enum PigmentSchool { FixWhenHandled, LeaveLoose }

/// <summary>What sand is stuck down with.</summary>
public enum SandSchool { PVA, InstantGlue }

/// <summary>When a base gets its texture.</summary>
public enum BaseTextureSchool { BeforePriming, AfterPainting }

/// <summary>Whether parts are painted before they are cut from their frame.</summary>
public enum FrameSchool { OnFrame, CutOutFirst }

/// <summary>Whether washes may be dried with hot air.</summary>
public enum HotAirSchool { Never, Allowed }

/// <summary>Whether recesses get their colour before or after the main colour.</summary>
public enum RecessSchool { Before, After }

/// <summary>Whether the brush is cleaned between dry-brush steps.</summary>
public enum DryBrushSchool { CarryOver, Clean }

/// <summary>Whether natural sand is painted.</summary>
public enum SandColourSchool { Painted, Natural }

/// <summary>How far solvent products are used.</summary>
public enum SolventSchool { FullProcess, WaterOnly }

/// <summary>The workshop's answers where practitioners disagree. The defaults are the cautious ones.</summary>
public sealed record HouseRules
{
    public Sheen PinWashSheen { get; init; } = Sheen.Satin;
    public PigmentSchool Pigments { get; init; } = PigmentSchool.FixWhenHandled;
    public SandSchool SandGlue { get; init; } = SandSchool.PVA;
    public BaseTextureSchool BaseTexture { get; init; } = BaseTextureSchool.BeforePriming;
    public FrameSchool PaintOnFrame { get; init; } = FrameSchool.OnFrame;
    public HotAirSchool HotAirOnWash { get; init; } = HotAirSchool.Never;
    public RecessSchool RecessColour { get; init; } = RecessSchool.Before;
    public DryBrushSchool DryBrushCleaning { get; init; } = DryBrushSchool.CarryOver;
    public SandColourSchool NaturalSand { get; init; } = SandColourSchool.Painted;

    /// <summary>What a bare percentage of thinner means; null asks until it has been answered once.</summary>
    public PercentMeaning? BarePercent { get; init; }

    public SolventSchool SolventProducts { get; init; } = SolventSchool.FullProcess;
}
