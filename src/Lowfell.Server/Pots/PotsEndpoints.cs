using Lowfell.Server.Writing;

namespace Lowfell.Server.Pots;

/// <summary>Mixes, pots and amounts.</summary>
public static class PotsEndpoints
{
    public static void MapPots(this IEndpointRouteBuilder app)
    {
        var pots = app.MapGroup("/api/pots/{setId:guid}").WithTags("Pots");
        pots.MapGet("", PotsReader.OfSet).WithName("pots").WithSummary("The mixes a set calls for, and the pots there are.").ProducesProblem(404);
        pots.MapPost("/jar", JarReader.Look).WithName("jar").WithSummary("A recipe in an amount: parts, percent, drops, ml and grams together, with what is predicted of it.").ProducesProblem(400).ProducesProblem(404);
        pots.MapGet("/advice", PotQuestions.Advice).WithName("potAdvice").WithSummary("One pot or several for a mix of the plan.").ProducesProblem(400).ProducesProblem(404);
        pots.MapGet("/amounts", PotQuestions.Amounts).WithName("amounts").WithSummary("What every layer takes and how that comes about.").ProducesProblem(400).ProducesProblem(404);
        pots.MapPut("/reserve", Reserves.Change).WithName("changeReserve").WithSummary("What is kept back of every ground and finishing colour, for corrections and for pieces to come.").Writes<Reserves.ReserveTold, ReserveDto>(Reserves.Tell);
        pots.MapPut("/{id:guid}", PotNames.Change).WithName("renamePot").WithSummary("Another label or note for a pot.").Writes<PotTold, PotDto>(PotsReader.Tell);
        pots.MapPost("", PotSteps.Make).WithName("makePot").Writes<PotTold, PotDto>(PotsReader.Tell);
        pots.MapGet("/{id:guid}", PotsReader.OfPot).WithName("pot").WithSummary("A pot and what happened to it.").ProducesProblem(404);
        pots.MapPost("/{id:guid}/ask", PotQuestions.Ask).WithName("askPot").WithSummary("What to add for a ratio or an amount, and what pouring another pot in would make.").ProducesProblem(400).ProducesProblem(404);
        pots.MapGet("/{id:guid}/ran-out", PotQuestions.RanOut).WithName("ranOut").WithSummary("What is done, what lands closest, and which pieces to keep apart.").ProducesProblem(400).ProducesProblem(404);
        Step("top-up", PotSteps.TopUp, "topUpPot");
        Step("join", PotSteps.Join, "joinPots");
        Step("split", PotSteps.Split, "splitPot");
        Step("give", PotSteps.Give, "givePot");
        Step("throw-away", PotSteps.ThrowAway, "throwAwayPot");
        Step("correct", PotSteps.Correct, "correctPot");
        Step("move", PotSteps.Move, "movePot");
        Step("events/{eventId:guid}/take-back", PotSteps.TakeBack, "takeBackPot");

        void Step(string path, Delegate step, string name) =>
            pots.MapPost($"/{{id:guid}}/{path}", step).WithName(name).Writes<PotTold, PotDto>(PotsReader.Tell);
    }
}
