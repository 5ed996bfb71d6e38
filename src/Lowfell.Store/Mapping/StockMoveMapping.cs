using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Lowfell.Store.Mapping;

internal sealed class StockMoveMapping : IEntityTypeConfiguration<StockMoveRow>
{
    public void Configure(EntityTypeBuilder<StockMoveRow> row)
    {
        row.ToTable("stock_moves", t =>
        {
            t.HasCheckConstraint("ck_stock_moves_ml", "ml <> 0");
            t.HasCheckConstraint("ck_stock_moves_sign", "case kind when 'bought' then ml > 0 when 'returned' then ml > 0 when 'opening' then ml > 0 when 'corrected' then true else ml < 0 end");
        });
        row.Property(m => m.Id).ValueGeneratedNever();
        row.Property(m => m.Reason).HasMaxLength(500);
        row.HasIndex(m => new { m.MaterialId, m.At });
        row.HasOne<MaterialRow>().WithMany().HasForeignKey(m => m.MaterialId).OnDelete(DeleteBehavior.Restrict);

        row.HasIndex(m => m.WorkEventId);
        row.HasOne<WorkEventRow>().WithMany().HasForeignKey(m => m.WorkEventId).OnDelete(DeleteBehavior.Restrict);

        // A move is taken back once.
        row.HasIndex(m => m.UndoesId).IsUnique();
        row.HasOne<StockMoveRow>().WithMany().HasForeignKey(m => m.UndoesId).OnDelete(DeleteBehavior.Restrict);
    }
}
