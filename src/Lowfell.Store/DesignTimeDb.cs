using Microsoft.EntityFrameworkCore.Design;

namespace Lowfell.Store;

/// <summary>Lets the migration tool build the model without a running database.</summary>
internal sealed class DesignTimeDb : IDesignTimeDbContextFactory<LowfellDb>
{
    public LowfellDb CreateDbContext(string[] args) => new(LowfellDb.Options("Host=127.0.0.1;Database=design"));
}
