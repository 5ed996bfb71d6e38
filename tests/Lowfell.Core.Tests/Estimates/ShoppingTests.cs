using CsCheck;
using Lowfell.Core.Estimates;

namespace Lowfell.Core.Tests.Estimates;

public class ShoppingTests
{
    [Fact]
    public void Packs_are_the_fewest_that_last() =>
        Gen.Select(Gen.Double[0, 500], Gen.Double[0, 500], Gen.Double[1, 100], Gen.Double[0, 20]).Sample((need, stock, pack, price) =>
        {
            var buy = Shopping.For(need, stock, pack, price);
            Assert.True(stock + buy.Packs * pack >= need - 1e-6);
            Assert.True(buy.Packs == 0 || stock + (buy.Packs - 1) * pack < need);
            Assert.Equal(buy.Packs * price, buy.Cost);
            Assert.Equal(stock + buy.Packs * pack - need, buy.LeftMl, 6);
            Assert.Equal(buy.ShortMl > 0, buy.State == StockState.Short);
        });

    [Theory]
    [InlineData(1e-9, 0)]
    [InlineData(8e-9, 0)]
    [InlineData(2e-7, 1)]
    public void What_rounding_leaves_is_not_bought(double missingMl, int packs)
    {
        var buy = Shopping.For(10 + missingMl, 10, 1000, 15);
        Assert.Equal((packs, packs * 15d, packs > 0 ? StockState.Short : StockState.Low), (buy.Packs, buy.Cost, buy.State));
    }

    [Fact]
    public void Hardly_anything_left_counts_as_low() =>
        Assert.Equal((StockState.Low, StockState.Enough, StockState.Enough), (Shopping.For(10, 12, 20, 1).State, Shopping.For(10, 14, 20, 1).State, Shopping.For(0, 1, 20, 1).State));

    [Fact]
    public void Without_a_pack_size_nothing_is_made_up() =>
        Assert.Equal(new Purchase(StockState.Short, 5, 0, null, 0), Shopping.For(10, 5, 0, 3));

    [Fact]
    public void What_has_no_price_costs_not_nothing_but_nobody_knows_what()
    {
        Assert.Null(Shopping.For(10, 5, 4, null).Cost);
        Assert.Equal(2, Shopping.For(10, 5, 4, null).Packs);
        Assert.Equal(0, Shopping.For(3, 5, 4, null).Cost);
        Assert.Equal(0, Shopping.For(10, 5, 4, 0).Cost);
    }
}
