namespace Lowfell.Core.Layers;

/// <summary>Ways to put a layer on, or to work on one.</summary>
public enum Technique
{
    Prime, DirectionalLight, BaseCoat, Overbrush, DryBrush, Sponge, Stipple, Patch, AllOverWash, PinWash, Filter, Glaze,
    EdgeLine, PaintedChip, ChippingFluid, Scratch, Streak, Speckle, Dust, Pigment, Varnish, SealTexture, TexturePaste, Render,
    CracklePaste, CrackleMedium, GlueAndScatter, Rock, Tuft, Decal, Mask, Unmask, CleanUpExcess, TrimAndTouchUp, Rim,
    Assemble, Weight, Inspect, ChipThrough, RubBack, Marking, RunOff, Stencil, WetBlend, Hit,
}

/// <summary>What is in the hand.</summary>
public enum Tool
{
    Brush, Airbrush, SprayCan, Sponge, Swab, Spatula, Fingers,
}

/// <summary>How a layer dries.</summary>
public enum DryingMode
{
    Air, HotAir,
}

/// <summary>Where on the zone a layer goes.</summary>
public enum Region
{
    All, Raised, Recess, Upward, LowerThird, Edges, Spots,

    /// <summary>All but a narrow margin along the outer edge.</summary>
    WithinRim,

    /// <summary>A hand's breadth of the ground around rocks and parts that stand on it.</summary>
    AroundFeet,

    /// <summary>Those edges that meet the world first.</summary>
    LeadingEdges,

    /// <summary>One panel, board or stone in four.</summary>
    OneInFour,

    /// <summary>A line sunk into the face.</summary>
    RecessedLine,
}

/// <summary>How deep the relief of a zone is.</summary>
public enum Relief
{
    Smooth, Light, Deep,
}

/// <summary>What the surface of a zone is made of: how it is drawn, and how long its joints are.</summary>
public enum SurfaceKind
{
    Plain, Courses, Boards, Slates, Ribs, Panels, Links, Grain, Crackle, Mesh,
}

/// <summary>How a set is treated after it is finished.</summary>
public enum Handling
{
    Display, Careful, HardPlay,
}

/// <summary>What the bare piece is made of.</summary>
public enum Substrate
{
    PrintedPlastic, MouldedPlastic, Resin, Metal, Board, Foam, Plaster, Wood,
}

/// <summary>The three places of a relief in which everything is looked at.</summary>
public enum Position
{
    Raised, Field, Recess,
}
