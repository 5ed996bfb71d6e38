using Lowfell.Server.Writing;
using Lowfell.Store.Rows;
using Lowfell.Store.Starter;

namespace Lowfell.Server.Stacks;

/// <summary>A bench with a dozen plain materials on its shelf, as part of whatever else is being written.</summary>
internal static class NewWorkshop
{
    public const int Most = 200;

    public static Guid Add(Write write, WorkshopRow row)
    {
        write.In(row.Id);
        write.Db.Add(row);
        write.Db.AddRange(StarterShelf.Materials(row.Id));
        return row.Id;
    }
}
