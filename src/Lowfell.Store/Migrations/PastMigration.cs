using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Lowfell.Store.Migrations;

/// <summary>
/// A migration that says all it does by itself: types and defaults stand in its steps. The picture of all tables that is made with every
/// migration is kept of the newest state alone (LowfellDbModelSnapshot): those of the past took a minute to compile and nothing reads them.
/// </summary>
public abstract class PastMigration : Migration
{
    protected override void BuildTargetModel(ModelBuilder modelBuilder) => modelBuilder.HasAnnotation("ProductVersion", "10.0.4");
}
