using Lowfell.Core.Bench;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Mixing.Reading;
using Lowfell.Core.Order;
using Lowfell.Store.Mapping;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>The store: tables, constraints and row versions over PostgreSQL.</summary>
public sealed class LowfellDb(DbContextOptions<LowfellDb> options) : DbContext(options)
{
    public DbSet<WorkshopRow> Workshops => Set<WorkshopRow>();
    public DbSet<MaterialRow> Materials => Set<MaterialRow>();
    public DbSet<SetRow> Sets => Set<SetRow>();
    public DbSet<DesignRow> Designs => Set<DesignRow>();
    public DbSet<ZoneRow> Zones => Set<ZoneRow>();
    public DbSet<ZoneTouchRow> ZoneTouches => Set<ZoneTouchRow>();
    public DbSet<PieceRow> Pieces => Set<PieceRow>();
    public DbSet<TreatmentRow> Treatments => Set<TreatmentRow>();
    public DbSet<TreatmentRevisionRow> TreatmentRevisions => Set<TreatmentRevisionRow>();
    public DbSet<RevisionLayerRow> RevisionLayers => Set<RevisionLayerRow>();
    public DbSet<LayerRow> Layers => Set<LayerRow>();
    public DbSet<LayerSurfaceRow> LayerSurfaces => Set<LayerSurfaceRow>();
    public DbSet<SurfaceRow> Surfaces => Set<SurfaceRow>();
    public DbSet<RevisionSurfaceRow> RevisionSurfaces => Set<RevisionSurfaceRow>();
    public DbSet<MixRow> Mixes => Set<MixRow>();
    public DbSet<MixComponentRow> MixComponents => Set<MixComponentRow>();
    public DbSet<CalibrationRow> Calibrations => Set<CalibrationRow>();
    public DbSet<AcceptedFindingRow> AcceptedFindings => Set<AcceptedFindingRow>();
    public DbSet<StockMoveRow> StockMoves => Set<StockMoveRow>();
    public DbSet<PotRow> Pots => Set<PotRow>();
    public DbSet<PotContentRow> PotContents => Set<PotContentRow>();
    public DbSet<WorkEventRow> WorkEvents => Set<WorkEventRow>();
    public DbSet<WorkAlsoRow> WorkAlso => Set<WorkAlsoRow>();
    public DbSet<WorkAmountRow> WorkAmounts => Set<WorkAmountRow>();
    public DbSet<DoneLayerRow> DoneLayers => Set<DoneLayerRow>();
    public DbSet<BenchDeviceRow> BenchDevices => Set<BenchDeviceRow>();
    public DbSet<BenchRefusalRow> BenchRefusals => Set<BenchRefusalRow>();
    public DbSet<PieceLayerRow> PieceLayers => Set<PieceLayerRow>();
    public DbSet<TakenTimeRow> TakenTimes => Set<TakenTimeRow>();
    public DbSet<PhotoRow> Photos => Set<PhotoRow>();
    public DbSet<WriteReceiptRow> WriteReceipts => Set<WriteReceiptRow>();
    public DbSet<SpentWriteRow> SpentWrites => Set<SpentWriteRow>();
    public DbSet<SliceVersionRow> SliceVersions => Set<SliceVersionRow>();
    public DbSet<VersionNameRow> VersionNames => Set<VersionNameRow>();
    public DbSet<RecipeRow> Recipes => Set<RecipeRow>();
    public DbSet<RecipePartRow> RecipeParts => Set<RecipePartRow>();
    public DbSet<TimetableRow> Timetables => Set<TimetableRow>();
    public DbSet<LeftOutRow> LeftOut => Set<LeftOutRow>();
    public DbSet<CalendarAddressRow> CalendarAddresses => Set<CalendarAddressRow>();
    public DbSet<JournalStepRow> JournalSteps => Set<JournalStepRow>();
    public DbSet<JobRow> Jobs => Set<JobRow>();
    public DbSet<BlobRow> Blobs => Set<BlobRow>();
    public DbSet<AuthorityRow> Authorities => Set<AuthorityRow>();
    public DbSet<DoorRow> Doors => Set<DoorRow>();
    public DbSet<PairingKeyRow> PairingKeys => Set<PairingKeyRow>();
    public DbSet<PairedDeviceRow> PairedDevices => Set<PairedDeviceRow>();
    public DbSet<ReadingRow> Readings => Set<ReadingRow>();
    public DbSet<TrialRow> Trials => Set<TrialRow>();
    public DbSet<TrialLookRow> TrialLooks => Set<TrialLookRow>();
    public DbSet<MarksDoneRow> MarksDone => Set<MarksDoneRow>();
    public DbSet<BasePlanRow> BasePlans => Set<BasePlanRow>();

    /// <summary>Options for a connection string, as server, tests and design-time tools all use them.</summary>
    public static DbContextOptions<LowfellDb> Options(string connection) =>
        Configure(new DbContextOptionsBuilder<LowfellDb>(), connection).Options;

    /// <summary>Applies the provider and naming to a builder.</summary>
    public static DbContextOptionsBuilder<LowfellDb> Configure(DbContextOptionsBuilder<LowfellDb> builder, string connection)
    {
        builder.UseNpgsql(connection).UseSnakeCaseNamingConvention();
        return builder;
    }

    protected override void ConfigureConventions(ModelConfigurationBuilder conventions)
    {
        conventions.Words<MaterialKind>();
        conventions.Words<Carrier>();
        conventions.Words<Sheen>();
        conventions.Words<Lustre>();
        conventions.Words<Technique>();
        conventions.Words<Tool>();
        conventions.Words<DryingMode>();
        conventions.Words<Preparation>();
        conventions.Words<Region>();
        conventions.Words<Habit>();
        conventions.Words<Position>();
        conventions.Words<Relief>();
        conventions.Words<Handling>();
        conventions.Words<Substrate>();
        conventions.Words<SurfaceKind>();
        conventions.Words<Silhouette>();
        conventions.Words<StockMoveKind>();
        conventions.Words<WorkKind>();
        conventions.Words<PieceState>();
        conventions.Words<Slice>();
        conventions.Words<JobState>();
        conventions.Words<DeviceRole>();
        conventions.Words<Settled>();
        conventions.Words<Vessel>();
        conventions.Words<PigmentSchool>();
        conventions.Words<SandSchool>();
        conventions.Words<BaseTextureSchool>();
        conventions.Words<FrameSchool>();
        conventions.Words<HotAirSchool>();
        conventions.Words<RecessSchool>();
        conventions.Words<DryBrushSchool>();
        conventions.Words<SandColourSchool>();
        conventions.Words<SolventSchool>();
        conventions.Words<PercentMeaning>();
        conventions.Properties<decimal>().HavePrecision(12, 4);
        conventions.Properties<decimal?>().HavePrecision(12, 4);
    }

    protected override void OnModelCreating(ModelBuilder model)
    {
        model.ApplyConfigurationsFromAssembly(typeof(LowfellDb).Assembly);
        model.CheckWords();
    }
}
