using CsCheck;
using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Words;

namespace Lowfell.Core.Tests.Mixing;

public class PartsTests
{
    private static readonly Gen<Parts> parts = Gen.Select(Gen.Long[0, 1000], Gen.Long[1, 1000], (n, d) => Parts.Of(n, d));

    [Fact]
    public void Arithmetic_is_exact() => Gen.Select(parts, parts, parts).Sample((a, b, c) =>
    {
        Assert.Equal(a + b, b + a);
        Assert.Equal((a + b) * c, a * c + b * c);
        Assert.Equal(a, a + Parts.Zero);
        Assert.Equal(a, a * Parts.One);
    });

    [Fact]
    public void A_third_stays_a_third() => Assert.Equal(Parts.One, Parts.Of(1, 3) + Parts.Of(1, 3) + Parts.Of(1, 3));

    [Theory]
    [InlineData(1.5, 3, 2)]
    [InlineData(0.25, 1, 4)]
    [InlineData(7, 7, 1)]
    public void Decimals_become_fractions(double value, long numerator, long denominator) =>
        Assert.Equal(Parts.Of(numerator, denominator), Parts.Of((decimal)value));

    [Fact]
    public void Negative_parts_are_refused() => Assert.Throws<ArgumentOutOfRangeException>(() => Parts.Of(-1));

    [Fact]
    public void Colder_and_damper_rooms_dry_slower() => Gen.Select(Gen.Double[5, 35], Gen.Double[0.2, 0.85]).Sample((t, rh) =>
    {
        Assert.True(DryingModel.ClimateFactor(Carrier.WaterAcrylic, new(t - 1, rh)) > DryingModel.ClimateFactor(Carrier.WaterAcrylic, new(t, rh)));
        Assert.True(DryingModel.ClimateFactor(Carrier.WaterAcrylic, new(t, rh + 0.05)) > DryingModel.ClimateFactor(Carrier.WaterAcrylic, new(t, rh)));
        Assert.Equal(DryingModel.ClimateFactor(Carrier.Enamel, new(t, 0.3)), DryingModel.ClimateFactor(Carrier.Enamel, new(t, 0.8)));
    });

    [Fact]
    public void Words_read_back_for_every_term()
    {
        Assert.All(Enum.GetValues<Technique>(), t => Assert.Equal(t, EnumWords.Read<Technique>(EnumWords.Of(t))));
        Assert.Equal("all-over wash", EnumWords.Of(Technique.AllOverWash));
        Assert.Equal("PVA", EnumWords.Of(Carrier.PVA));
        Assert.Null(EnumWords.Read<Carrier>("treacle"));
    }

    [Fact]
    public void What_is_added_can_be_taken_away_again() => Gen.Select(parts, parts).Sample((a, b) =>
    {
        Assert.Equal(a, a + b - b);
        Assert.Equal(Parts.Zero, a - a);
        Assert.Equal(a.ToDouble() + b.ToDouble(), (a + b).ToDouble(), 1e-9);
        Assert.Throws<ArgumentOutOfRangeException>(() => a - (a + b + Parts.One));
    });
}
