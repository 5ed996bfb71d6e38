using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Order;

/// <summary>Every rule: a stack in which it fires, and the nearest harmless one in which it does not.</summary>
public class RuleTests
{
    private static readonly Layer prime = Lay(Technique.Prime, Primer);
    private static readonly Layer ground = Lay(Technique.BaseCoat, Brown, 2);
    private static readonly Layer satin = Lay(Technique.Varnish, Satin, 2);
    private static readonly Layer matt = Lay(Technique.Varnish, Matt);

    private static Finding Fires(string rule, StackContext context, params Layer[] stack) =>
        Assert.Single(Check(context, stack), f => f.Rule == rule);

    private static void Quiet(string rule, StackContext context, params Layer[] stack) =>
        Assert.DoesNotContain(Check(context, stack), f => f.Rule == rule);

    [Fact]
    public void A_sound_stack_has_nothing_against_it() =>
        Assert.DoesNotContain(Check(Context(), prime, ground, Lay(Technique.AllOverWash, Wash), Lay(Technique.DryBrush, White), matt), f => !f.IsCare);

    [Fact]
    public void Bare_ground()
    {
        Assert.Equal(Severity.Caution, Fires("bare-ground", Context(), ground, matt).Severity);
        Quiet("bare-ground", Context(), prime, ground, matt);
    }

    [Fact]
    public void A_sealer_is_ground_enough_for_board_but_not_for_metal()
    {
        Quiet("bare-ground", Context(Zone(substrate: Substrate.Board)), Lay(Technique.SealTexture, Matt), ground);
        Fires("bare-ground", Context(Zone(substrate: Substrate.Metal)), Lay(Technique.SealTexture, Matt), ground);
    }

    [Fact]
    public void Foam_is_offered_a_water_borne_primer()
    {
        var remedy = Assert.Single(Fires("bare-ground", Context(Zone(substrate: Substrate.Foam)), ground).Remedies);
        Assert.Equal(WaterPrimer, Assert.IsType<StackEdit.Insert>(Assert.Single(remedy.Edits)).Layer.Main);
    }

    [Fact]
    public void Hot_over_soft()
    {
        var lacquer = Lay(Technique.BaseCoat, Lacquer, 2);
        Assert.Equal(Severity.Stop, Fires("hot-over-soft", Context(), prime, Lay(Technique.Filter, EnamelFilter), satin, lacquer).Severity);
        Quiet("hot-over-soft", Context(), prime, lacquer, satin, Lay(Technique.Filter, EnamelFilter));
    }

    [Fact]
    public void Lacquer_waits_for_acrylic_to_cure()
    {
        var lacquer = Lay(Technique.BaseCoat, Lacquer, 2);
        Fires("hot-over-soft", Context(), prime, ground with { WaitMinutes = 60 }, lacquer);
        Quiet("hot-over-soft", Context(), prime, ground with { WaitMinutes = 3 * 24 * 60 }, lacquer);
    }

    [Fact]
    public void Same_solvent()
    {
        Layer filter = Lay(Technique.Filter, EnamelFilter), pin = Lay(Technique.PinWash, EnamelWash), clean = Lay(Technique.CleanUpExcess, Spirit);
        var finding = Fires("same-solvent", Context(), prime, ground, satin, filter, pin, clean, matt);
        Assert.Equal(Severity.Stop, finding.Severity);
        Assert.Equal([4, 3], finding.Layers);
        Quiet("same-solvent", Context(), prime, ground, satin, filter, satin with { Id = Guid.NewGuid() }, pin, clean, matt);
    }

    [Fact]
    public void A_patchy_or_token_varnish_is_no_barrier()
    {
        Layer filter = Lay(Technique.Filter, EnamelFilter), streak = Lay(Technique.Streak, EnamelWash);
        Fires("same-solvent", Context(), prime, ground, satin, filter, Lay(Technique.Varnish, Satin, strength: 0.2), streak);
        Fires("same-solvent", Context(), prime, ground, satin, filter, Lay(Technique.Varnish, Satin, region: Region.Raised), streak);
    }

    [Fact]
    public void No_barrier()
    {
        Fires("no-barrier", Context(), prime, ground, Lay(Technique.PinWash, EnamelWash));
        Quiet("no-barrier", Context(), prime, ground, satin, Lay(Technique.PinWash, EnamelWash));
        Quiet("no-barrier", Context(), prime, ground, Lay(Technique.PinWash, Wash));
    }

    [Fact]
    public void Wrong_thinner()
    {
        Fires("wrong-thinner", Context(), prime, ground with { Dilution = new Dilution(Spirit, Parts.Of(2), Parts.One) });
        Quiet("wrong-thinner", Context(), prime, ground with { Dilution = new Dilution(Water, Parts.Of(2), Parts.One) });
        Fires("wrong-thinner", Context(), prime, satin, Lay(Technique.PinWash, EnamelWash), Lay(Technique.CleanUpExcess, Water));
        Quiet("wrong-thinner", Context(), prime, satin, Lay(Technique.PinWash, EnamelWash), Lay(Technique.CleanUpExcess, Spirit));
    }

    [Fact]
    public void Soft_below_is_worse_when_still_wet_and_depends_on_the_room()
    {
        var wash = Lay(Technique.AllOverWash, Wash);
        Assert.Equal(Severity.Stop, Fires("soft-below", Context(), prime, ground with { WaitMinutes = 5 }, wash).Severity);
        Assert.Equal(Severity.Caution, Fires("soft-below", Context(), prime, ground with { WaitMinutes = 60 }, wash).Severity);
        Quiet("soft-below", Context(), prime, ground with { WaitMinutes = 140 }, wash);
        Fires("soft-below", Context(climate: new Climate(12, 0.8)), prime, ground with { WaitMinutes = 140 }, wash);
        Quiet("soft-below", Context(), prime, ground, wash);
    }

    [Fact]
    public void Unsealed_texture()
    {
        var crackle = Lay(Technique.CracklePaste, Crackle);
        var wash = Lay(Technique.AllOverWash, Wash);
        Assert.Equal(Severity.Stop, Fires("unsealed-texture", Context(), prime, crackle, wash).Severity);
        Fires("unsealed-texture", Context(), prime, crackle, Lay(Technique.SealTexture, Matt, 1), wash);
        Quiet("unsealed-texture", Context(), prime, crackle, Lay(Technique.SealTexture, Matt, 2), wash);
        Assert.Equal(Severity.Caution, Fires("unsealed-texture", Context(), Lay(Technique.GlueAndScatter, Sand), Lay(Technique.DryBrush, White)).Severity);
        Quiet("unsealed-texture", Context(), Lay(Technique.GlueAndScatter, Sand), prime, ground, Lay(Technique.DryBrush, White));
    }

    [Fact]
    public void Wash_on_flat_depends_on_area_and_relief()
    {
        var wash = Lay(Technique.AllOverWash, Wash);
        Assert.Equal(Severity.Caution, Fires("wash-on-flat", Context(Zone(Relief.Smooth, 60)), prime, ground, wash, matt).Severity);
        Assert.Equal(Severity.Hint, Fires("wash-on-flat", Context(Zone(Relief.Smooth, 5)), prime, ground, wash, matt).Severity);
        Quiet("wash-on-flat", Context(Zone(Relief.Smooth, 3.5)), prime, ground, wash, matt);
        Quiet("wash-on-flat", Context(Zone(Relief.Light, 60)), prime, ground, wash, matt);
    }

    [Fact]
    public void Pin_on_matt_offers_the_house_sheen()
    {
        var pin = Lay(Technique.PinWash, Wash);
        Fires("pin-on-matt", Context(), prime, ground, matt, pin);
        Quiet("pin-on-matt", Context(), prime, ground, satin, pin);
        var house = new HouseRules { PinWashSheen = Sheen.Gloss };
        var edit = Fires("pin-on-matt", Context(rules: house), prime, ground, matt, pin).Remedies[0].Edits[0];
        Assert.Equal(Gloss, Assert.IsType<StackEdit.Insert>(edit).Layer.Main);
    }

    [Fact]
    public void Light_buried()
    {
        var light = Lay(Technique.DirectionalLight, White, 2);
        Fires("light-buried", Context(), prime, light, Lay(Technique.BaseCoat, Brown, 2), matt);
        Quiet("light-buried", Context(), prime, light, Lay(Technique.Filter, WaterFilter), matt);
    }

    [Fact]
    public void Sheen_target_follows_the_zone_and_spares_loose_powder()
    {
        Fires("sheen-target", Context(), prime, ground, satin);
        Quiet("sheen-target", Context(), prime, ground, satin, matt);
        Quiet("sheen-target", Context(Zone() with { TargetSheen = Sheen.Satin }), prime, ground, satin);
        var insert = Assert.IsType<StackEdit.Insert>(Fires("sheen-target", Context(), prime, ground, satin, Lay(Technique.Pigment, Dust)).Remedies[0].Edits[0]);
        Assert.Equal(3, insert.At);
    }

    [Fact]
    public void Coats_to_hide_says_how_many()
    {
        var pale = Lay(Technique.BaseCoat, White, 1);
        var finding = Fires("coats-to-hide", Context(), prime, pale, matt);
        var needed = Assert.IsType<StackEdit.Replace>(finding.Remedies[0].Edits[0]).Layer.Coats;
        Assert.True(needed > 1);
        Quiet("coats-to-hide", Context(), prime, pale with { Coats = needed }, matt);
        Fires("coats-to-hide", Context(), prime, pale with { Coats = needed - 1 }, matt);
    }

    [Fact]
    public void No_visible_change()
    {
        Fires("no-visible-change", Context(), prime, ground, Lay(Technique.Speckle, Brown), matt);
        Quiet("no-visible-change", Context(), prime, ground, Lay(Technique.Speckle, White), matt);
    }

    [Theory]
    [InlineData(Technique.AllOverWash)]
    [InlineData(Technique.PinWash)]
    [InlineData(Technique.Streak)]
    public void A_wipe_is_judged_with_what_it_wipes(Technique technique)
    {
        Layer[] stack = [Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, 2), Lay(Technique.Varnish, Satin, 2), Lay(technique, EnamelWash, wait: 60), Lay(Technique.CleanUpExcess, Spirit), Lay(Technique.Varnish, Matt)];
        Assert.DoesNotContain(Check(Context(), stack), f => f.Severity == Severity.Stop || f.Rule is "no-barrier" or "same-solvent" or "clean-up-missed");
    }

    [Fact]
    public void An_open_wait_is_as_long_as_what_follows_wants_and_no_longer()
    {
        Layer[] Stack(double? afterPin, double? afterWipe) =>
            [Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, 2), Lay(Technique.Varnish, Satin, 2), Lay(Technique.PinWash, EnamelWash, wait: afterPin), Lay(Technique.CleanUpExcess, Spirit, wait: afterWipe), Lay(Technique.Varnish, Matt)];
        var tooSoon = Check(Context(), Stack(null, 60)).Single(f => f.Rule == "soft-below");
        Assert.Equal([5, 3], tooSoon.Layers);
        Assert.DoesNotContain(Check(Context(), Stack(null, null)), f => f.Rule is "soft-below" or "clean-up-missed");
        Assert.DoesNotContain(Check(Context(), Stack(60, 12 * 60)), f => f.Rule == "soft-below");
    }

    [Fact]
    public void A_varnish_on_the_lower_third_protects_the_lower_third()
    {
        Layer[] Stack(Region varnish, Region wash) =>
            [Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, 2), Lay(Technique.Varnish, Satin, 2, region: varnish), Lay(Technique.AllOverWash, EnamelWash, wait: 60, region: wash), Lay(Technique.CleanUpExcess, Spirit)];
        bool Bare(Region varnish, Region wash) => Check(Context(), Stack(varnish, wash)).Any(f => f.Rule == "no-barrier");
        Assert.True(Bare(Region.LowerThird, Region.All));
        Assert.False(Bare(Region.LowerThird, Region.LowerThird));
        Assert.False(Bare(Region.All, Region.LowerThird));
    }

    [Fact]
    public void A_wipe_a_day_later_comes_too_late()
    {
        Layer[] stack = [Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, 2), Lay(Technique.Varnish, Satin, 2), Lay(Technique.AllOverWash, EnamelWash, wait: 30 * 60), Lay(Technique.CleanUpExcess, Spirit)];
        var late = Check(Context(), stack).Single(f => f.Rule == "clean-up-missed");
        Assert.Contains("hard rubbing", late.Why, StringComparison.Ordinal);
        var mended = StackEdit.Apply(stack, late.Remedies[0].Edits);
        Assert.DoesNotContain(OrderCheck.Run(Context(), mended), f => f.Rule == "clean-up-missed");
    }

    /// <summary>A paint thinned 1 : 10 for a wash is replaced by a wash, and a coat over crackle medium stays one coat.</summary>
    [Fact]
    public void Remedies_keep_what_a_layer_is_for()
    {
        var enamel = Make("Slip Grey", MaterialKind.Paint, Carrier.Enamel, "#6a6a64");
        Layer[] washed = [Lay(Technique.Prime, Primer), Lay(Technique.Filter, EnamelFilter), Lay(Technique.AllOverWash, enamel, thin: new Dilution(Spirit, Parts.One, Parts.Of(10)))];
        var remedy = Check(Context(), washed).Single(f => f.Rule == "same-solvent").Remedies.Single(r => r.Id == "water-borne");
        Assert.Equal(MaterialKind.Wash, Assert.IsType<StackEdit.Replace>(remedy.Edits[0]).Layer.Main!.Kind);
        Layer[] crackled = [Lay(Technique.Prime, ChalkPrimer), Lay(Technique.CrackleMedium, RuleExamples.CrackleCoat), Lay(Technique.BaseCoat, White), Lay(Technique.Varnish, Matt)];
        Assert.DoesNotContain(Check(Context(), crackled), f => f.Rule is "coats-to-hide" or "crackle-film");
        var thin = Lay(Technique.Varnish, Matt, thin: new Dilution(Water, Parts.One, Parts.Of(2)));
        Layer[] varnished = [Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, 2), thin];
        Assert.DoesNotContain(OrderCheck.Run(Context() with { Shelf = RuleExamples.FullShelf }, varnished).Single(f => f.Rule == "overthinned").Remedies, r => r.Id == "medium-part");
    }

    [Fact]
    public void A_thinned_coat_stays_thinned_with_another_binder()
    {
        var layer = Lay(Technique.BaseCoat, Lacquer, thin: new Dilution(Spirit, Parts.One, Parts.Of(2)));
        var (instead, _) = ShelfPick.WaterBorne(Shelf, layer)!.Value;
        Assert.Equal(Water, instead.Dilution!.Thinner);
        Assert.InRange(1 - instead.PaintShare, 0.3, 0.5);
        Assert.Equal(Carrier.WaterAcrylic, instead.Carrier);
    }

    [Fact]
    public void What_is_thinned_with_the_wrong_thing_is_thinned_with_the_right_or_used_neat()
    {
        var coat = Lay(Technique.BaseCoat, Brown, 2, thin: new Dilution(Spirit, Parts.One, Parts.One));
        var remedies = Fires("wrong-thinner", Context(), prime, coat, matt).Remedies;
        Dilution? After(string id) => Assert.IsType<StackEdit.Replace>(Assert.Single(remedies.Single(r => r.Id == id).Edits)).Layer.Dilution;
        Assert.Equal(Water, After("swap-thinner")!.Thinner);
        Assert.Null(After("neat"));
    }

    [Fact]
    public void A_lighter_paint_is_lighter_by_a_step_at_least()
    {
        Core.Materials.Material Paint(string colour) => Make(colour, MaterialKind.Paint, Carrier.WaterAcrylic, colour);
        var (paint, hardly, lighter) = (Paint("#6a5a48"), Paint("#72624f"), Paint("#93826c"));
        Assert.Equal(lighter, ShelfPick.Lighter([hardly, lighter], paint));
        Assert.Null(ShelfPick.Lighter([hardly], paint));
    }

    [Fact]
    public void A_clean_up_with_the_wrong_thinner_is_done_with_the_right_one()
    {
        var stack = new[] { prime, ground, satin, Lay(Technique.AllOverWash, EnamelWash), Lay(Technique.CleanUpExcess, Water), matt };
        var remedy = Assert.Single(Fires("wrong-thinner", Context(), stack).Remedies);
        Assert.Equal(Spirit, Assert.IsType<StackEdit.Replace>(Assert.Single(remedy.Edits)).Layer.Main);
    }

    [Theory]
    [InlineData(Handling.Display, null)]
    [InlineData(Handling.Careful, Severity.Hint)]
    [InlineData(Handling.HardPlay, Severity.Caution)]
    public void Texture_up_to_the_rim_matters_the_more_the_more_it_is_handled(Handling handling, Severity? severity)
    {
        var found = Check(Context(Zone() with { AtRim = true, Handling = handling }), Lay(Technique.GlueAndScatter, Sand), ground, matt).Where(f => f.Rule == "rim-margin");
        Assert.Equal(severity, found.Select(f => (Severity?)f.Severity).SingleOrDefault());
    }
}
