using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Order;

namespace Lowfell.Store.Rows;

/// <summary>One bench or club: its shelf, house rules and climate.</summary>
public sealed class WorkshopRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required string Name { get; set; }
    public HouseRules HouseRules { get; set; } = new();
    public decimal TemperatureC { get; set; } = 20;
    public decimal RelativeHumidity { get; set; } = 0.5m;

    /// <summary>A fan or an open window keeps the air moving.</summary>
    public bool AirMoves { get; set; }

    /// <summary>What its prices are in, as it is written before or behind a sum; empty until somebody says so.</summary>
    public string Currency { get; set; } = "";

    /// <summary>What a new set begins with.</summary>
    public decimal TableMetres { get; set; } = 0.9m;
    public Handling Handling { get; set; } = Handling.Careful;
    public Sheen TargetSheen { get; set; } = Sheen.Matt;

    /// <summary>Whose evenings its hours are told in, by its name in the time zone database.</summary>
    public string TimeZone { get; set; } = "UTC";

    /// <summary>When somebody is at the bench, as <c>BenchHours</c> says it; empty until somebody says so.</summary>
    public string Hours { get; set; } = "";

    /// <summary>Initials of those who paint here.</summary>
    public string[] Painters { get; set; } = [];

    /// <summary>How many batches of pieces can lie and dry at once; null has room for all.</summary>
    public int? DryingPlaces { get; set; }

    /// <summary>What it knows of its own hands, by technique.</summary>
    public string Paces { get; set; } = "{}";

    /// <summary>Lengths are read and shown in inches.</summary>
    public bool Inches { get; set; }

    public DateTimeOffset? PutAwayAt { get; set; }

    public DateTimeOffset CreatedAt { get; init; }
    public uint Version { get; init; }
    public List<SetRow> Sets { get; } = [];
}

/// <summary>A project of modular pieces.</summary>
public sealed class SetRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid WorkshopId { get; init; }
    public required string Name { get; set; }

    /// <summary>The n of 1:n.</summary>
    public int Scale { get; set; }

    public decimal TableMetres { get; set; }
    public Handling Handling { get; set; }
    public Sheen TargetSheen { get; set; }
    public DateOnly? DueDate { get; set; }

    /// <summary>Kept back of every ground and finishing colour, for corrections and for pieces to come, ml.</summary>
    public decimal ReserveMl { get; set; }

    /// <summary>Its place among the sets of the workshop: what is needed first has the lowest.</summary>
    public int Rank { get; set; }

    public DateTimeOffset? PutAwayAt { get; set; }
    public uint Version { get; init; }
    public List<DesignRow> Designs { get; } = [];
}
