using System.Text.Json;
using Lowfell.Server.Jobs;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;

namespace Lowfell.Server.Remarks;

/// <summary>Goes through every stack of a large set. A step is a zone; what it finds is kept with the version of the set that it holds for.</summary>
internal sealed class SetRemarksJob(IDbContextFactory<LowfellDb> factory, SetGraphs graphs, IOptions<JsonOptions> json) : IJob
{
    public const string Word = "set remarks";

    public string Kind => Word;

    public async Task<JobResult?> Run(JobRow job, JobProgress progress, CancellationToken stop)
    {
        await using var db = await factory.CreateDbContextAsync(stop);
        if (await graphs.OfSet(db, job.SubjectId, stop) is not { } graph)
            return null;
        progress.Of(graph.Places.Count);

        // Half the machine, so that the bench stays quick for whoever paints meanwhile.
        var hands = new ParallelOptions { MaxDegreeOfParallelism = Math.Max(1, Environment.ProcessorCount / 2), CancellationToken = stop };
        Parallel.ForEach(graph.Designs, hands, design =>
        {
            SetRemarks.OfDesign(graph, design, stop);
            progress.Done(design.Zones.Count);
        });
        return new JobResult(graph.At, "application/json", JsonSerializer.SerializeToUtf8Bytes(SetRemarks.Of(graph), json.Value.SerializerOptions));
    }

    /// <summary>What was found before, of just this version of the set; null when nobody has looked.</summary>
    public async Task<RemarksReading?> Known(LowfellDb db, SetGraph graph, CancellationToken stop) =>
        await JobBook.Result(db, Word, graph.Set.Id, graph.At, stop) is { } bytes ? JsonSerializer.Deserialize<RemarksReading>(bytes, json.Value.SerializerOptions) : null;
}
