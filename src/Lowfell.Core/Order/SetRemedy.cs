using Lowfell.Core.Layers;

namespace Lowfell.Core.Order;

/// <summary>A zone that a treatment lies on.</summary>
public sealed record StackPlace(Guid Zone, StackContext Context);

/// <summary>A treatment with one kind of remedy applied wherever it helps.</summary>
/// <param name="Layers">The edited stack.</param>
/// <param name="Applied">How often the remedy was applied.</param>
/// <param name="Refused">Zones where it would have helped, but would have brought a stop or caution on a zone that shares the treatment.</param>
public sealed record RemediedStack(IReadOnlyList<Layer> Layers, int Applied, IReadOnlyList<Guid> Refused);

/// <summary>Applies one kind of remedy over all the zones that share a treatment.</summary>
public static class SetRemedy
{
    /// <summary>A stack settles after a few rounds; more would go in circles.</summary>
    private const int MostRounds = 30;

    /// <summary>Applies a remedy of a rule until it has nothing left to say, or no further one helps.</summary>
    /// <param name="places">Zones that share the stack.</param>
    /// <param name="layers">The stack, bottom first.</param>
    /// <param name="rule">Id of the rule.</param>
    /// <param name="remedy">Id of the remedy.</param>
    /// <param name="lived">Whether the painter lives with a finding on a zone, so that it stays.</param>
    /// <param name="newId">Gives inserted layers their ids.</param>
    public static RemediedStack Apply(
        IReadOnlyList<StackPlace> places, IReadOnlyList<Layer> layers, string rule, string remedy, Func<StackPlace, StackView, Finding, bool> lived, Func<Guid> newId)
    {
        var refused = new HashSet<(Guid Zone, Guid Layer)>();
        var applied = 0;
        for (var round = 0; round < MostRounds; round++)
        {
            if (Next(places, layers, rule, remedy, lived, refused) is not var (place, finding, edits))
                break;
            var edited = StackEdit.Apply(layers, edits).Select(l => l.Id == Guid.Empty ? l with { Id = newId() } : l).ToList();
            if (places.Any(p => p != place && BringsTrouble(p, layers, edited)))
            {
                refused.Add((place.Zone, layers[finding.Layers[0]].Id));
                continue;
            }

            layers = edited;
            applied++;
        }

        return new RemediedStack(layers, applied, refused.Select(r => r.Zone).Distinct().ToList());
    }

    private static (StackPlace Place, Finding Finding, IReadOnlyList<StackEdit> Edits)? Next(
        IReadOnlyList<StackPlace> places, IReadOnlyList<Layer> layers, string rule, string remedy, Func<StackPlace, StackView, Finding, bool> lived, HashSet<(Guid, Guid)> refused)
    {
        foreach (var place in places)
        {
            var view = new StackView(place.Context, layers);
            foreach (var finding in OrderCheck.Run(view, r => r.Id == rule))
            {
                if (lived(place, view, finding) || refused.Contains((place.Zone, layers[finding.Layers[0]].Id)))
                    continue;
                if (finding.Remedies.FirstOrDefault(r => r.Id == remedy) is { } found)
                    return (place, finding, found.Edits);
            }
        }

        return null;
    }

    private static bool BringsTrouble(StackPlace place, IReadOnlyList<Layer> before, IReadOnlyList<Layer> after)
    {
        HashSet<(bool, string, Guid)> Troubles(IReadOnlyList<Layer> stack)
        {
            var view = new StackView(place.Context, stack);
            return OrderCheck.Glance(view).Where(f => f.Severity != Severity.Hint && !f.IsCare)
                .Select(f => (f.Severity == Severity.Stop, f.Rule, OrderCheck.Key(view, f).Layer)).ToHashSet();
        }

        var was = Troubles(before);
        return Troubles(after).Any(t => !was.Contains(t) && !(t.Item1 == false && was.Contains((true, t.Item2, t.Item3))));
    }
}
