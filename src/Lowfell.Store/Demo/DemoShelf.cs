using Lowfell.Core.Drying;
using Lowfell.Core.Materials;
using Lowfell.Store.Rows;
using static Lowfell.Core.Materials.Carrier;
using static Lowfell.Core.Materials.MaterialKind;

namespace Lowfell.Store.Demo;

/// <summary>The shelf of the demo workshop: about sixty invented products.</summary>
internal static class DemoShelf
{
    private const string Tarnside = "Tarnside", Kell = "Kell Chandlery", Ousel = "Ousel", Plain = "Plain";

    public static IEnumerable<MaterialRow> Materials(Guid workshop)
    {
        MaterialRow M(string maker, string code, string name, MaterialKind kind, Carrier carrier, string? colour = null, double? hides = null,
            double stock = 12, double pack = 17, double price = 2.8, Sheen sheen = Sheen.Matt, double solids = 0.42, string hazards = "", string notes = "")
        {
            var dry = UsualDryTimes.For(kind, carrier);
            return new MaterialRow
            {
                WorkshopId = workshop,
                Maker = maker,
                Code = code,
                Name = name,
                Kind = kind,
                Carrier = carrier,
                Colour = colour,
                CoatsToHide = (decimal?)hides,
                StockMl = (decimal)stock,
                PackMl = (decimal)pack,
                Price = (decimal)price,
                Sheen = sheen,
                SolidsFraction = (decimal)solids,
                Hazards = hazards,
                Notes = notes,
                Thinners = [.. carrier.UsualThinners()],
                TouchMinutes = (decimal)dry.TouchMinutes,
                RecoatMinutes = (decimal)dry.RecoatMinutes,
                CureMinutes = (decimal)dry.CureMinutes,
                HeatSafe = carrier.IsWaterBorne() && kind is not CracklePaste,
            };
        }

        MaterialRow Acrylic(string code, string name, string colour, double hides, double stock = 12, double solids = 0.42) =>
            M(Tarnside, code, name, Paint, WaterAcrylic, colour, hides, stock, solids: solids);

        const string vapour = "Flammable vapour: ventilate, no flame and no hot air while wet.";
        const string spray = "Spray can: outdoors or extracted, respirator for solvent vapour, no flame.";
        const string dust = "Fine dust: mask, wipe damp.";

        return
        [
            Acrylic("T-01", "Peat Seven", "#4a3527", 1.4, 22),
            Acrylic("T-02", "Brick Clay", "#8c4a36", 2.0, 15),
            Acrylic("T-03", "Old Terracotta", "#a8674a", 2.2, 9),
            Acrylic("T-04", "Wet Slate", "#4b5358", 1.5, 17),
            Acrylic("T-05", "Fen Black", "#232426", 1.0, 14),
            Acrylic("T-06", "Salt White", "#e6e1d3", 3.0, 16, 0.48),
            Acrylic("T-07", "Withy Grey", "#9a958a", 2.0, 8),
            Acrylic("T-08", "Lichen Yellow", "#a9a552", 3.4, 6, 0.38),
            Acrylic("T-09", "Sedge Green", "#5d6643", 2.1, 11),
            Acrylic("T-10", "Rust Bloom", "#9a4f23", 2.6, 13),
            Acrylic("T-11", "Faded Signal", "#c46f38", 3.2, 10, 0.4),
            Acrylic("T-12", "Tarred Timber", "#3a332d", 1.3, 20),
            Acrylic("T-13", "Bleached Timber", "#a3927a", 2.2, 12),
            Acrylic("T-14", "Rope Buff", "#b59b6d", 2.6, 7),
            Acrylic("T-15", "Lime Render", "#cfc7b4", 2.8, 30, 0.46),
            Acrylic("T-16", "Coping Stone", "#8f8a7d", 1.9, 15),
            Acrylic("T-17", "Reed Straw", "#bfa766", 3.0, 9, 0.4),
            Acrylic("T-18", "Dredger Green", "#3f5248", 1.7, 24),
            Acrylic("T-19", "Deck Oxide", "#6d3a2c", 1.6, 18),
            Metal(Acrylic("T-20", "Cold Iron", "#54565a", 1.2, 13)),
            Metal(Acrylic("T-21", "Bright Wear", "#a5a7a6", 1.6, 5)),
            Acrylic("T-22", "Mud Dark", "#3b3228", 1.2, 26),
            Acrylic("T-23", "Weed Green", "#4f5a33", 2.0, 10),
            Acrylic("T-24", "Faded Door Blue", "#5b7482", 2.3, 8),
            Acrylic("T-25", "Pitch Line", "#2b2a2c", 1.1, 11),
            Card(Acrylic("T-26", "Mortar Ash", "#b3aa99", 2.4, 10), "#8d867a", "#b9b0a0"),
            M(Tarnside, "T-31", "Amber Ink", Ink, WaterAcrylic, "#cf9a4e", stock: 12, sheen: Sheen.Satin, solids: 0.2),
            M(Tarnside, "T-32", "Sluice Glass Ink", Ink, WaterAcrylic, "#8fb8ab", stock: 10, sheen: Sheen.Gloss, solids: 0.2),
            M(Tarnside, "T-41", "Tideline Wash", Wash, WaterAcrylic, "#8f9878", stock: 25, pack: 30, price: 3.6, solids: 0.12),
            M(Tarnside, "T-42", "Peat Wash", Wash, WaterAcrylic, "#94764f", stock: 28, pack: 30, price: 3.6, solids: 0.12),
            M(Tarnside, "T-43", "Lamp Soot Wash", Wash, WaterAcrylic, "#8a8783", stock: 19, pack: 30, price: 3.6, solids: 0.12),
            M(Tarnside, "T-44", "Ochre Silt Wash", Wash, WaterAcrylic, "#c0a36a", stock: 14, pack: 30, price: 3.6, solids: 0.12),
            M(Tarnside, "T-51", "Slow Glaze", GlazeMedium, WaterAcrylic, "#f4f1ea", stock: 40, pack: 60, price: 5.5, sheen: Sheen.Satin, solids: 0.3),
            M(Tarnside, "T-61", "Tarnside Satin", Varnish, WaterAcrylic, stock: 60, pack: 60, price: 6.2, sheen: Sheen.Satin, solids: 0.35),
            M(Tarnside, "T-62", "Tarnside Matt", Varnish, WaterAcrylic, stock: 90, pack: 60, price: 6.2, sheen: Sheen.Matt, solids: 0.35, notes: "Shake for two minutes; frosts when humid."),
            M(Tarnside, "T-63", "Tarnside Gloss", Varnish, WaterAcrylic, stock: 40, pack: 60, price: 6.2, sheen: Sheen.Gloss, solids: 0.38),
            Thinner(M(Tarnside, "T-71", "Tarnside Thinner", MaterialKind.Thinner, WaterAcrylic, stock: 110, pack: 120, price: 5.9, solids: 0), ThinnerFamily.AcrylicThinner, ThinnerFamily.Water),
            M(Tarnside, "T-81", "Brush-on Ground", Primer, WaterAcrylic, "#8b8b86", 1.6, 45, 60, 7.4, solids: 0.45),
            M(Tarnside, "T-91", "Scuff Fluid", ChippingFluid, WaterAcrylic, stock: 20, pack: 30, price: 4.5, sheen: Sheen.Satin, solids: 0.15),
            M(Kell, "K-01", "Slate Undercoat", Primer, SolventAcrylic, "#45494c", 1.0, 320, 400, 11.5, solids: 0.3, hazards: spray),
            M(Kell, "K-02", "Chalk Undercoat", Primer, SolventAcrylic, "#dcdad2", 1.8, 260, 400, 11.5, solids: 0.3, hazards: spray),
            M(Kell, "K-03", "Red Lead Undercoat", Primer, SolventAcrylic, "#6a3a2c", 1.2, 180, 400, 11.5, solids: 0.3, hazards: spray),
            M(Kell, "K-11", "Bog Umber", Wash, Enamel, "#7a5f3f", stock: 31, pack: 35, price: 4.8, sheen: Sheen.Satin, solids: 0.25, hazards: vapour),
            M(Kell, "K-12", "Rust Run", Wash, Enamel, "#a96a38", stock: 22, pack: 35, price: 4.8, sheen: Sheen.Satin, solids: 0.25, hazards: vapour),
            M(Kell, "K-13", "Tide Slime", Wash, Enamel, "#8a8a50", stock: 17, pack: 35, price: 4.8, sheen: Sheen.Satin, solids: 0.25, hazards: vapour),
            M(Kell, "K-21", "Sedge Filter", Filter, Enamel, "#d2c9a0", stock: 33, pack: 35, price: 4.6, sheen: Sheen.Satin, solids: 0.15, hazards: vapour),
            M(Kell, "K-22", "Slate Filter", Filter, Enamel, "#b9c2c6", stock: 28, pack: 35, price: 4.6, sheen: Sheen.Satin, solids: 0.15, hazards: vapour),
            M(Kell, "K-31", "Raw Peat Oil", Paint, Oil, "#3d2f20", 2.5, 18, 20, 6.9, Sheen.Satin, 0.8, "Drying oil: rags can heat by themselves, lay them flat outside."),
            Metal(M(Kell, "K-41", "Bright Chain Lacquer", Paint, SolventAcrylic, "#8e9092", 1.2, 21, 30, 5.2, Sheen.Satin, 0.25, vapour)),
            M(Kell, "K-51", "Dust Binder", Medium, Enamel, stock: 30, pack: 35, price: 4.9, solids: 0.1, hazards: vapour),
            Thinner(M(Kell, "K-61", "Chandlery Thinner", MaterialKind.Thinner, Enamel, stock: 180, pack: 250, price: 6.5, solids: 0, hazards: vapour + " Hazardous waste, not for the drain."), ThinnerFamily.WhiteSpirit),
            Thinner(M(Kell, "K-62", "Strong Thinner", MaterialKind.Thinner, SolventAcrylic, stock: 120, pack: 250, price: 7.2, solids: 0, hazards: vapour), ThinnerFamily.LacquerThinner),
            M(Ousel, "O-01", "Silt Pigment", Pigment, Dry, "#a08b6c", 2.5, 24, 30, 4.4, solids: 1, hazards: dust),
            M(Ousel, "O-02", "Rust Pigment", Pigment, Dry, "#8a4a22", 2.0, 22, 30, 4.4, solids: 1, hazards: dust),
            M(Ousel, "O-03", "Soot Pigment", Pigment, Dry, "#3a3733", 1.4, 26, 30, 4.4, solids: 1, hazards: dust),
            M(Ousel, "O-04", "Salt Pigment", Pigment, Dry, "#d9d3c3", 3.0, 15, 30, 4.4, solids: 1, hazards: dust),
            M(Ousel, "O-11", "Fen Mud Paste", TexturePaste, WaterAcrylic, "#4b3d2e", 1.0, 140, 200, 8.9, solids: 0.75),
            M(Ousel, "O-12", "Salt Crust", CracklePaste, WaterAcrylic, "#d6cfbd", 1.0, 90, 100, 7.9, solids: 0.7, notes: "Cracks wider where thicker. No hot air."),
            M(Ousel, "O-21", "Fine Fen Sand", Aggregate, None, "#a08f70", 1.0, 300, 500, 3.9, solids: 1, hazards: dust),
            M(Ousel, "O-31", "Short Reed Tufts", Tuft, None, "#9a8b52", stock: 60, pack: 80, price: 5.5, solids: 1),
            M(Plain, "", "White Glue", Glue, PVA, stock: 220, pack: 250, price: 3.2, solids: 0.5, sheen: Sheen.Satin),
            M(Plain, "", "Wall Filler", Filler, WaterAcrylic, "#d8d4ca", 1.0, 400, 500, 4.1, solids: 0.7, hazards: dust),
            M(Plain, "", "Instant Glue", Glue, Cyanoacrylate, stock: 9, pack: 20, price: 3.9, solids: 1, sheen: Sheen.Gloss,
                hazards: "Bonds skin; heats and smokes on cotton or wool; vapour irritates and frosts clear parts."),
            Thinner(M(Plain, "", "Tap Water", MaterialKind.Thinner, WaterAcrylic, stock: 1000, pack: 1000, price: 0, solids: 0), ThinnerFamily.Water),
            M(Plain, "", "Soft Pencil", Pencil, Dry, "#5d5c5b", 2.0, 5, 5, 1.1, Sheen.Satin, 1),
        ];
    }

    private static MaterialRow Card(MaterialRow row, string overBlack, string overWhite)
    {
        (row.OverBlack, row.OverWhite) = (overBlack, overWhite);
        return row;
    }

    private static MaterialRow Metal(MaterialRow row)
    {
        row.Lustre = Lustre.Metal;
        return row;
    }

    private static MaterialRow Thinner(MaterialRow row, params ThinnerFamily[] families)
    {
        row.Thinners = families;
        return row;
    }
}
