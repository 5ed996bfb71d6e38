using CsCheck;
using Lowfell.Core.Instruments;

namespace Lowfell.Core.Tests.Instruments;

public sealed class WeighingTests
{
    private static readonly DateTimeOffset on = new(2026, 11, 20, 19, 0, 0, TimeSpan.Zero);
    private static readonly PourPart[] twoToOne = [new(2, 0.05, 1.2), new(1, 0.045, 1.02)];

    [Fact]
    public void A_scale_is_at_rest_once_it_trembles_only()
    {
        var scale = new StandInScale(3);
        List<ScaleReading> said = [];
        for (var i = 0; i < 20; i++)
        {
            said.Add(scale.At(on, TimeSpan.FromSeconds(i * 0.2), i < 10 ? i : 10));
            if (i < 16)
                Assert.Null(Weighing.Of(said));
        }

        Assert.Equal(10, Weighing.Of(said)!.Value.Grams, 0.02);
        Assert.Null(Weighing.Of([]));
    }

    /// <summary>A hand that follows what is said, with drops that differ, miscounts, a scale that trembles and drifts.</summary>
    [Fact]
    public void A_scale_with_noise_and_drift_mixes_two_to_one_within_three_percent()
    {
        for (var seed = 0; seed < 300; seed++)
        {
            var random = new Random(seed);
            var (scale, seconds, lies) = (new StandInScale(seed), 0.0, 12.0);
            double Rest()
            {
                List<ScaleReading> said = [];
                while (true)
                {
                    seconds += 0.2;
                    said.Add(scale.At(on, TimeSpan.FromSeconds(seconds), lies));
                    if (Weighing.Of(said) is { } rest)
                        return rest.Grams;
                    Assert.True(said.Count < 100, "it comes to rest");
                }
            }

            double[] real = [0, 0], weighed = [0, 0];
            var (part, zero) = (0, Rest());
            for (var round = 0; ; round++)
            {
                Assert.True(round < 40, "the hand is told to stop");
                var says = PourByWeight.Next(twoToOne, weighed, 3);
                if (says.Part < 0)
                    break;
                if (says.Part != part)
                    (part, zero) = (says.Part, Rest() - weighed[says.Part]);
                var drops = Math.Max(1, says.Drops + (says.Drops > 5 ? random.Next(-1, 2) : 0));
                for (var d = 0; d < drops; d++)
                {
                    var ml = twoToOne[part].DropMl * (1 + 0.05 * (random.NextDouble() * 2 - 1));
                    real[part] += ml;
                    lies += ml * twoToOne[part].DensityGPerMl;
                    seconds += 0.5;
                }

                weighed[part] = Rest() - zero;
            }

            Assert.InRange(real[0] / real[1] / 2, 0.97, 1.03);
            Assert.InRange(real.Sum(), 2.9, 3.4);
        }
    }

    [Fact]
    public void What_is_poured_is_never_asked_for_again_and_asking_ends() => Gen.Select(
        Gen.Select(Gen.Double[0.2, 9], Gen.Double[0.03, 0.08], Gen.Double[0.8, 1.6], (p, d, g) => new PourPart(p, d, g)).Array[1, 5], Gen.Double[0.3, 20], Gen.Int[0, 1000]).Sample((parts, ml, seed) =>
    {
        var random = new Random(seed);
        var grams = parts.Select(p => random.Next(3) == 0 ? ml * p.Parts / parts.Sum(x => x.Parts) * p.DensityGPerMl * random.NextDouble() * 1.5 : 0).ToArray();
        for (var round = 0; round < 200; round++)
        {
            var says = PourByWeight.Next(parts, grams, ml);
            if (says.Part < 0)
                return parts.All(p => p.Parts > 0) && grams.Zip(parts).All(x => x.First / x.Second.DensityGPerMl > -1e-9);
            Assert.True(says.Drops > 0);
            grams[says.Part] += says.Drops * parts[says.Part].DropMl * parts[says.Part].DensityGPerMl;
        }

        return false;
    });

    [Fact]
    public void Too_much_of_one_part_is_made_up_with_the_other()
    {
        // 44 drops where 40 were wanted: 22 of the other.
        var says = PourByWeight.Next([new(2, 0.05, 1), new(1, 0.05, 1)], [2.2, 0], 3);
        Assert.Equal((1, 22), (says.Part, says.Drops));
        Assert.Throws<ArgumentException>(() => PourByWeight.Next(twoToOne, [1], 3));
    }

    [Fact]
    public void The_hand_that_is_none_pours_what_it_was_told()
    {
        var hand = new StandInHand(12, [2.4, 1.2]);
        Assert.Equal(12, hand.At(TimeSpan.FromSeconds(3)));
        Assert.Equal(14.4, hand.At(TimeSpan.FromSeconds(26)), 0.001);
        Assert.Equal(15.6, hand.At(TimeSpan.FromMinutes(2)), 0.001);
    }

    [Theory]
    [InlineData(0.038, true)]
    [InlineData(0.042, false)]
    public void A_weight_that_moves_by_more_than_a_tremble_is_not_at_rest(double moves, bool rests)
    {
        var said = Enumerable.Range(0, 20).Select(i => new ScaleReading(on.AddSeconds(i * 0.2), i % 2 == 0 ? 10 : 10 + moves)).ToList();
        Assert.Equal(rests, Weighing.Of(said) is not null);
    }
}
