namespace Lowfell.Store.Demo;

/// <summary>The treatments of Harrowmere Sluice, bottom layer first.</summary>
internal static class DemoTreatments
{
    public static readonly IReadOnlyDictionary<string, string> ByName = new Dictionary<string, string>
    {
        ["Lock brick"] = """
            prime | Slate Undercoat |
            base coat | Peat Seven 3 + Brick Clay 2 | 4:1 Tap Water, 2 coats
            patch | Brick Clay | x0.7, 2:1 Tap Water, "single bricks, never the same ones twice"
            overbrush | Old Terracotta |
            varnish | Tarnside Satin | 2:1 Tarnside Thinner
            filter | Sedge Filter | x0.6, wait 300
            varnish | Tarnside Satin | 2:1 Tarnside Thinner
            pin wash | Bog Umber | 1:1 Chandlery Thinner, "joints only, no pool wider than 1 mm"
            clean up excess | Chandlery Thinner | wait 960
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            dry brush | Salt White | x0.6, "almost none left on the brush"
            dust | Silt Pigment | lower third, "loose"
            """,
        ["Lock coping"] = """
            prime | Slate Undercoat |
            base coat | Coping Stone | 4:1 Tap Water, 2 coats
            stipple | Withy Grey 2 + Lichen Yellow 1 | x0.6, plan 7
            all-over wash | Lamp Soot Wash |
            dry brush | Salt White |
            speckle | Lichen Yellow | x0.5, plan 5
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            """,
        ["Tide band"] = """
            prime | Slate Undercoat |
            base coat | Wet Slate 1 + Weed Green 1 | 4:1 Tap Water, 2 coats
            sponge | Weed Green |
            varnish | Tarnside Satin | 2:1 Tarnside Thinner
            streak | Tide Slime | x1.2, wait 960
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            all-over wash | Tideline Wash |
            dry brush | Salt White | x0.5, raised
            """,
        ["Mooring iron"] = """
            prime | Red Lead Undercoat |
            base coat | Cold Iron | 4:1 Tap Water, 2 coats
            painted chip | Rust Bloom | plan 3
            varnish | Tarnside Satin | 2:1 Tarnside Thinner
            pin wash | Rust Run |
            clean up excess | Chandlery Thinner | wait 960
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            edge line | Bright Wear | x0.5
            """,
        ["Back face"] = """
            prime | Slate Undercoat |
            base coat | Peat Seven 3 + Brick Clay 2 | 4:1 Tap Water, 2 coats
            sponge | Brick Clay | x0.6
            all-over wash | Peat Wash | "the face nobody is meant to see"
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            """,
        ["Pump house walls"] = """
            seal texture | White Glue | 1:1 Tap Water
            render | Wall Filler |
            prime | Brush-on Ground | airbrush, 2 coats
            base coat | Lime Render | 3 coats
            overbrush | Salt White | x0.7
            all-over wash | Ochre Silt Wash |
            varnish | Tarnside Satin | 2:1 Tarnside Thinner
            streak | Rust Run | x1.3, 0.5 mm, wait 960
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            dust | Soot Pigment | upward, x0.6
            """,
        ["Cottage walls"] = """
            seal texture | White Glue | 1:1 Tap Water
            render | Wall Filler |
            prime | Brush-on Ground | brush
            base coat | Lime Render 4 + Rope Buff 1 | 3 coats
            stipple | Salt White | x0.6
            all-over wash | Ochre Silt Wash |
            dry brush | Salt White |
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            dust | Silt Pigment | lower third
            """,
        ["Cut edges"] = """
            seal texture | White Glue | 1:1 Tap Water
            prime | Brush-on Ground | brush
            base coat | Lime Render | 3 coats
            all-over wash | Ochre Silt Wash |
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            """,
        ["House timber"] = """
            seal texture | White Glue | 1:1 Tap Water
            base coat | Tarred Timber | 2 coats, 4:1 Tap Water
            overbrush | Bleached Timber | x0.7
            glaze | Amber Ink | 1:1 Tap Water
            all-over wash | Peat Wash |
            dry brush | Bleached Timber 1 + Salt White 1 |
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            """,
        ["Slate roof"] = """
            prime | Slate Undercoat |
            base coat | Wet Slate | 2 coats, 4:1 Tap Water
            patch | Wet Slate 2 + Withy Grey 1 | x0.8
            patch | Wet Slate 2 + Deck Oxide 1 | x0.4
            all-over wash | Lamp Soot Wash |
            dry brush | Withy Grey |
            speckle | Lichen Yellow | x0.5, lower third, plan 2
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            """,
        ["House door"] = """
            prime | Slate Undercoat |
            base coat | Deck Oxide | 2 coats
            chipping fluid | Scuff Fluid |
            base coat | Faded Door Blue | 2 coats
            chip through | | "most along the bottom rail"
            varnish | Tarnside Satin | 2:1 Tarnside Thinner
            pin wash | Bog Umber |
            clean up excess | Chandlery Thinner | wait 960
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            """,
        ["Window glass"] = """
            prime | Slate Undercoat |
            base coat | Fen Black 2 + Wet Slate 1 | 2 coats
            glaze | Sluice Glass Ink | 2 coats
            all-over wash | Lamp Soot Wash |
            varnish | Tarnside Gloss | 2 coats
            """,
        ["Jetty timber"] = """
            prime | Slate Undercoat |
            base coat | Tarred Timber | 2 coats, 4:1 Tap Water
            overbrush | Bleached Timber |
            streak | Sedge Green | x0.8
            all-over wash | Peat Wash |
            dry brush | Salt White | x0.7
            sponge | Weed Green | lower third, x0.5
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            """,
        ["Jetty rope"] = """
            prime | Slate Undercoat |
            base coat | Rope Buff | 3 coats
            all-over wash | Peat Wash |
            dry brush | Rope Buff 1 + Salt White 1 |
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            """,
        ["Dredger hull"] = """
            prime | Red Lead Undercoat |
            chipping fluid | Scuff Fluid |
            base coat | Dredger Green | airbrush, 5 coats, 2:1 Tarnside Thinner
            patch | Dredger Green 3 + Withy Grey 1 | x0.6
            chip through | | "where the chain and the quay rub"
            varnish | Tarnside Satin | 2:1 Tarnside Thinner
            pin wash | Bog Umber |
            clean up excess | Chandlery Thinner | wait 960
            varnish | Tarnside Satin | 2:1 Tarnside Thinner
            streak | Rust Run | x1.3, 0.5 mm, wait 960
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            dust | Silt Pigment | lower third
            """,
        ["Dredger deck"] = """
            prime | Red Lead Undercoat |
            base coat | Deck Oxide | 2 coats
            sponge | Rust Bloom | x0.5
            all-over wash | Peat Wash |
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            painted chip | Bright Wear | x0.5
            pigment | Rust Pigment | recess
            """,
        ["Dredger tracks"] = """
            prime | Slate Undercoat |
            base coat | Bright Chain Lacquer | airbrush, 3 coats
            all-over wash | Bog Umber | wait 960
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            dry brush | Bright Wear |
            pigment | Silt Pigment |
            assemble | Instant Glue | "after the hull is sealed"
            """,
        ["Dredger arm"] = """
            prime | Red Lead Undercoat |
            base coat | Faded Signal | 3 coats
            varnish | Tarnside Satin | 2:1 Tarnside Thinner
            pin wash | Rust Run |
            clean up excess | Chandlery Thinner | wait 960
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            painted chip | Cold Iron |
            assemble | Instant Glue | "arm last, clear of the cab"
            """,
        ["Cab glass"] = """
            prime | Slate Undercoat |
            base coat | Fen Black 1 + Wet Slate 1 | 2 coats
            glaze | Sluice Glass Ink | 2 coats
            streak | Salt White | x0.3
            varnish | Tarnside Gloss | 2 coats
            """,
        ["Hazard stripes"] = """
            prime | Chalk Undercoat |
            base coat | Faded Signal | 3 coats
            mask | |
            base coat | Pitch Line | 2 coats
            unmask | |
            painted chip | Deck Oxide | x0.7
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            """,
        ["Salt crust"] = """
            prime | Slate Undercoat |
            base coat | Mud Dark | 2 coats
            crackle paste | Salt Crust | "thicker towards the middle"
            varnish | Tarnside Satin | 2 coats, 2:1 Tarnside Thinner
            all-over wash | Peat Wash | x0.7
            dry brush | Salt White |
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            """,
        ["Fen mud"] = """
            texture paste | Fen Mud Paste |
            glue and scatter | Fine Fen Sand 4 + White Glue 1 |
            prime | Slate Undercoat |
            base coat | Mud Dark | 2 coats, 3:1 Tap Water
            all-over wash | Peat Wash |
            dry brush | Bleached Timber | x0.7
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            """,
        ["Reed bed"] = """
            prime | Slate Undercoat |
            base coat | Mud Dark | 2 coats
            stipple | Sedge Green |
            dry brush | Reed Straw |
            varnish | Tarnside Matt | 2:1 Tarnside Thinner
            tuft | Short Reed Tufts | spots
            """,
        ["Base rim"] = """
            prime | Slate Undercoat |
            rim | Tarred Timber | 2 coats
            rim | Tarred Timber | "second time, after everything else"
            trim and touch up | Tarred Timber |
            varnish | Tarnside Satin | 2:1 Tarnside Thinner
            """,
    };
}
