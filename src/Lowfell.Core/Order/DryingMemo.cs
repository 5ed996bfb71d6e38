using System.Collections.Concurrent;
using Lowfell.Core.Drying;
using Lowfell.Core.Layers;

namespace Lowfell.Core.Order;

/// <summary>How long layers take to dry in one room and house, kept for all variations of a stack, which have most layers in common.</summary>
internal sealed class DryingMemo
{
    private readonly DryingConditions plain, thirsty;
    private readonly ConcurrentDictionary<Layer, DryRange> onPlain = new(ReferenceEqualityComparer.Instance), onThirsty = new(ReferenceEqualityComparer.Instance);

    public DryingMemo(StackContext context)
    {
        plain = new(context.Climate, Thirsty: false, context.HouseRules.HotAirOnWash == HotAirSchool.Allowed);
        thirsty = plain with { Thirsty = true };
    }

    /// <summary>The room, what a layer lies on, and what the house does with hot air.</summary>
    public DryingConditions Conditions(bool onThirstyGround) => onThirstyGround ? thirsty : plain;

    public DryRange Of(Layer layer, bool onThirstyGround) =>
        onThirstyGround ? onThirsty.GetOrAdd(layer, l => DryingModel.Of(l, thirsty)) : onPlain.GetOrAdd(layer, l => DryingModel.Of(l, plain));
}
