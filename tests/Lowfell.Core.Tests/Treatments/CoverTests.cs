using Lowfell.Core.Treatments;

namespace Lowfell.Core.Tests.Treatments;

/// <summary>Whatever layers come to go over, every surface that keeps a layer keeps it as it is, and its line.</summary>
public sealed class CoverTests
{
    public static TheoryData<int> Seeds { get; } = [.. Enumerable.Range(0, 12)];

    [Theory]
    [MemberData(nameof(Seeds))]
    public void Over_more_or_fewer_surfaces_nothing_else_changes(int seed)
    {
        var random = new Random(seed);
        for (var n = 0; n < 100; n++)
        {
            var was = RandomTreatments.Any(random);
            if (was.Steps.Count == 0)
                continue;
            var step = was.Steps[random.Next(was.Steps.Count)];
            var over = was.Surfaces.Where(_ => random.Next(2) == 0).DefaultIfEmpty(was.Surfaces[0]).Select(s => s.Id).ToHashSet();
            var after = Cover.Of(was, step.Id, over);
            foreach (var surface in was.Surfaces.Select(s => s.Id))
            {
                var (line, kept) = (step.On(surface)?.Line, over.Contains(surface));
                Assert.Equal(kept, after.Steps.Single(s => s.Id == step.Id).On(surface) is not null);

                // What it went over, and what it comes to go over, has all the others as before; only what took it as its lowest takes less.
                var now = after.Steps.Single(s => s.Id == step.Id).On(surface)?.Line;
                var less = was.Stack(surface).Where(l => l.DownTo == line).Select(l => l.Id).ToHashSet();
                List<string> Others(Treatment of, Guid? but) => RandomTreatments.Words(of.Stack(surface).Where(l => l.Id != but).Select(l => less.Contains(l.Id) ? l with { DownTo = null } : l).ToList());
                Assert.Equal(Others(was, line), Others(after, now));
                if (kept && line is not null)
                    Assert.Equal(RandomTreatments.Words(was.Stack(surface)), RandomTreatments.Words(after.Stack(surface)));
            }
        }
    }

    [Theory]
    [MemberData(nameof(Seeds))]
    public void Parted_and_brought_together_every_surface_has_the_stack_it_had(int seed)
    {
        var random = new Random(100 + seed);
        for (var n = 0; n < 100; n++)
        {
            var was = RandomTreatments.Any(random);
            var going = was.Surfaces.Where(s => s.On is null && random.Next(2) == 0).Select(s => s.Id).ToHashSet();
            if (going.Count == 0 || was.Surfaces.All(s => going.Contains(s.On ?? s.Id)))
                continue;
            var (stays, parts) = Cover.Part(was, going);
            var again = Cover.Together(stays, parts, new HashSet<(Guid, Guid)>());
            Assert.Equal(again.Steps.Count, again.Steps.Select(s => s.Id).Distinct().Count());

            // Told what comes before what, it is the order it was.
            var at = was.Steps.SelectMany((s, i) => s.Over.Select(l => (Key: (l.Surface, l.Line), i))).ToDictionary(x => x.Key, x => x.i);
            var before = (from a in at from b in at where a.Value < b.Value && going.Contains(Root(a.Key.Surface)) != going.Contains(Root(b.Key.Surface)) select (a.Key.Line, b.Key.Line)).ToHashSet();
            Guid Root(Guid surface) => was.Surfaces.First(s => s.Id == surface).On ?? surface;
            var placed = Cover.Together(stays, parts, before).Steps.Select(s => at[(s.Over[0].Surface, s.Over[0].Line)]).ToList();
            if (before.All(b => !before.Contains((b.Item2, b.Item1))))
                Assert.Equal(placed.Order(), placed);
            foreach (var surface in was.Surfaces.Select(s => s.Id))
            {
                var words = RandomTreatments.Words(was.Stack(surface));
                Assert.Equal(words, RandomTreatments.Words((stays.Surfaces.Any(s => s.Id == surface) ? stays : parts).Stack(surface)));
                Assert.Equal(words, RandomTreatments.Words(again.Stack(surface)));
            }
        }
    }

    [Fact]
    public void A_layer_that_comes_back_to_a_surface_has_the_line_it_had_there()
    {
        var random = new Random(5);
        var was = RandomTreatments.Any(random);
        while (was.Steps.FirstOrDefault(s => s.Over.Count > 1) is null)
            was = RandomTreatments.Any(random);
        var step = was.Steps.First(s => s.Over.Count > 1);
        var (here, there) = (step.Over[0], step.Over[1]);
        var without = Cover.Of(was, step.Id, step.Over.Where(l => l != there).Select(l => l.Surface).ToHashSet());
        var back = Cover.Of(without, step.Id, step.Over.Select(l => l.Surface).ToHashSet(), s => s == there.Surface ? there.Line : null);
        Assert.Equal(there.Line, back.Steps.Single(s => s.Id == step.Id).On(there.Surface)!.Line);
        Assert.Equal(here.Line, back.Steps.Single(s => s.Id == step.Id).On(here.Surface)!.Line);
    }

    [Fact]
    public void A_layer_over_nothing_a_surface_that_is_not_there_and_parting_with_all_are_refused()
    {
        var random = new Random(8);
        var was = RandomTreatments.Any(random);
        while (was.Steps.Count == 0)
            was = RandomTreatments.Any(random);
        Assert.Throws<ArgumentException>(() => Cover.Of(was, was.Steps[0].Id, new HashSet<Guid>()));
        Assert.Throws<ArgumentException>(() => Cover.Of(was, was.Steps[0].Id, new HashSet<Guid> { Guid.NewGuid() }));
        Assert.Throws<ArgumentException>(() => Cover.Of(was, Guid.NewGuid(), new HashSet<Guid> { was.Surfaces[0].Id }));
        Assert.Throws<ArgumentException>(() => Cover.Part(was, new HashSet<Guid>()));
        Assert.Throws<ArgumentException>(() => Cover.Part(was, was.Surfaces.Select(s => s.Id).ToHashSet()));
        Assert.Throws<ArgumentException>(() => Cover.Together(was, was, new HashSet<(Guid, Guid)>()));
    }

    [Theory]
    [MemberData(nameof(Seeds))]
    public void A_new_layer_lies_just_above_the_one_that_was_named_and_changes_no_other(int seed)
    {
        var random = new Random(200 + seed);
        for (var n = 0; n < 100; n++)
        {
            var was = RandomTreatments.Any(random);
            var over = was.Surfaces.Where(_ => random.Next(2) == 0).DefaultIfEmpty(was.Surfaces[0]).Select(s => s.Id).ToHashSet();
            Guid? above = was.Steps.Count == 0 || random.Next(4) == 0 ? null : was.Steps[random.Next(was.Steps.Count)].Id;
            var layer = RandomTreatments.Layer(random);
            var after = Cover.Begin(was, layer, "new", over, above);
            var step = after.Steps.Single(s => was.Steps.All(w => w.Id != s.Id));
            Assert.Equal(above is null ? 0 : was.Steps.ToList().FindIndex(s => s.Id == above) + 1, after.Steps.ToList().IndexOf(step));
            Assert.Equal(("new", layer.Technique), (step.Note, step.Layer.Technique));

            // It lies on the surfaces that were named and on what stands on them.
            Assert.Equal(was.Surfaces.Where(s => over.Contains(s.Id) || (s.On is { } on && over.Contains(on))).Select(s => s.Id), step.Over.Select(l => l.Surface));
            foreach (var surface in was.Surfaces.Select(s => s.Id))
                Assert.Equal(RandomTreatments.Words(was.Stack(surface)), RandomTreatments.Words(after.Stack(surface).Where(l => l.Id != step.On(surface)?.Line).ToList()));
        }
    }

    [Theory]
    [MemberData(nameof(Seeds))]
    public void Moved_it_lies_above_the_one_that_was_named_and_all_others_keep_their_order(int seed)
    {
        var random = new Random(300 + seed);
        for (var n = 0; n < 100; n++)
        {
            var was = RandomTreatments.Any(random);
            if (was.Steps.Count < 2)
                continue;
            var (step, above) = (was.Steps[random.Next(was.Steps.Count)].Id, random.Next(4) == 0 ? (Guid?)null : was.Steps[random.Next(was.Steps.Count)].Id);
            var after = Cover.Moved(was, step, above);
            var order = after.Steps.Select(s => s.Id).ToList();
            Assert.Equal(was.Steps.Select(s => s.Id).Where(s => s != step), order.Where(s => s != step));
            if (above != step)
                Assert.Equal(above, order.IndexOf(step) == 0 ? null : order[order.IndexOf(step) - 1]);
            Assert.Equal(was.Steps.Select(s => string.Join(' ', s.Over.Select(l => l.Line))).Order(), after.Steps.Select(s => string.Join(' ', s.Over.Select(l => l.Line))).Order());
        }
    }

    [Theory]
    [MemberData(nameof(Seeds))]
    public void What_is_left_out_of_some_surfaces_and_put_back_from_below_is_all_as_it_was(int seed)
    {
        var random = new Random(400 + seed);
        for (var n = 0; n < 100; n++)
        {
            var was = RandomTreatments.Any(random);
            var lines = was.Steps.SelectMany(s => s.Over).Select(l => l.Line).Where(_ => random.Next(3) == 0).ToHashSet();
            var without = Cover.Without(was, lines);
            foreach (var surface in was.Surfaces.Select(s => s.Id))
                Assert.Equal(was.Stack(surface).Select(l => l.Id).Where(l => !lines.Contains(l)), without.Stack(surface).Select(l => l.Id));
            var back = without;
            foreach (var step in was.Steps)
                foreach (var lay in step.Over.Where(l => lines.Contains(l.Line)))
                {
                    // What lies below it on its surface, the nearest first.
                    var below = was.Stack(lay.Surface).TakeWhile(l => l.Id != lay.Line).Select(l => l.Id).Reverse().ToList();
                    back = Cover.Back(back, step, lay.Line, below);
                    Assert.Equal(RandomTreatments.Words(back.Stack(lay.Surface)), RandomTreatments.Words(Cover.Back(back, step, lay.Line, below).Stack(lay.Surface)));
                }

            foreach (var surface in was.Surfaces.Select(s => s.Id))
                Assert.Equal(was.Stack(surface).Select(l => (l.Id, l.Coats, l.Strength)), back.Stack(surface).Select(l => (l.Id, l.Coats, l.Strength)));
        }
    }

    [Fact]
    public void What_is_asked_of_no_surface_or_no_step_is_refused()
    {
        var was = RandomTreatments.Any(new Random(5));
        var layer = RandomTreatments.Layer(new Random(5));
        Assert.Throws<ArgumentException>(() => Cover.Begin(was, layer, "", new HashSet<Guid>(), null));
        Assert.Throws<ArgumentException>(() => Cover.Begin(was, layer, "", new HashSet<Guid> { Guid.NewGuid() }, null));
        Assert.Throws<ArgumentException>(() => Cover.Begin(was, layer, "", new HashSet<Guid> { was.Surfaces[0].Id }, Guid.NewGuid()));
        Assert.Throws<ArgumentException>(() => Cover.Moved(was, Guid.NewGuid(), null));
    }

    [Theory]
    [MemberData(nameof(Seeds))]
    public void Under_other_ids_every_surface_has_the_stack_it_had(int seed)
    {
        var was = RandomTreatments.Any(new Random(500 + seed));
        var ids = was.Surfaces.ToDictionary(s => s.Id, _ => Guid.NewGuid());
        var after = Cover.Renamed(was, ids);
        Assert.All(was.Surfaces, s => Assert.Equal(RandomTreatments.Words(was.Stack(s.Id)), RandomTreatments.Words(after.Stack(ids[s.Id]))));
        Assert.Equal(was.Surfaces.Select(s => (s.Name, On: s.On is { } on ? ids[on] : (Guid?)null)), after.Surfaces.Select(s => (s.Name, s.On)));
    }

    [Theory]
    [MemberData(nameof(Seeds))]
    public void A_detail_that_is_left_out_has_the_layers_of_its_surface_and_the_others_have_theirs(int seed)
    {
        var random = new Random(seed);
        for (var n = 0; n < 60; n++)
        {
            var was = RandomTreatments.Any(random);
            if (was.Surfaces.FirstOrDefault(s => s.On is not null) is not { } detail)
                continue;
            var after = Cover.LeftOut(was, detail.Id);
            List<string> Laid(Treatment of, Guid surface) => of.Stack(surface).Select(l => $"{l.Technique} {l.MaterialName} {l.Tool} {l.Coats} {l.Strength} {l.Region}").ToList();
            Assert.Equal(Laid(was, detail.On!.Value), Laid(after, detail.Id));
            foreach (var other in was.Surfaces.Where(s => s.Id != detail.Id))
                Assert.Equal(RandomTreatments.Words(was.Stack(other.Id)), RandomTreatments.Words(after.Stack(other.Id)));

            // What lay on both stays the same layer, and no line means two.
            foreach (var step in was.Steps.Where(s => s.On(detail.Id) is not null && s.On(detail.On.Value) is not null))
                Assert.Equal(step.On(detail.Id)!.Line, after.Steps.Single(s => s.Id == step.Id).On(detail.Id)!.Line);
            var lines = after.Steps.SelectMany(s => s.Over.Select(l => (l.Surface, l.Line))).ToList();
            Assert.Equal(lines.Count, lines.Distinct().Count());
        }

        var alone = new Treatment([new Surface(Guid.NewGuid(), "alone", null)], []);
        Assert.Throws<ArgumentException>(() => Cover.LeftOut(alone, alone.Surfaces[0].Id));
    }
}
