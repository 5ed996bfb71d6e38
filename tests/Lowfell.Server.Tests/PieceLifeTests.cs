using System.Globalization;
using System.Text.Json.Nodes;
using Lowfell.Core.Bench;
using Lowfell.Store;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

/// <summary>
/// A piece that is planned and worked on by chance: layers over this and that, parted, brought together, undone, told at the bench at once and
/// long after. What lies on every zone is what a plain list of it says, no line ever means another layer, and what is done stays done.
/// </summary>
public sealed class PieceLifeTests
{
    /// <summary>Seeds and steps: few in passing; <c>LOWFELL_TEST_LIFE=20x2000</c> for a long night.</summary>
    private static readonly int[] life = (Environment.GetEnvironmentVariable("LOWFELL_TEST_LIFE") ?? "2x40").Split('x').Select(n => int.Parse(n, CultureInfo.InvariantCulture)).ToArray();

    public static TheoryData<int> Seeds => [.. Enumerable.Range(1, life[0])];

    [Theory]
    [MemberData(nameof(Seeds))]
    public async Task What_lies_on_every_zone_is_what_a_plain_list_says(int seed)
    {
        await using var server = new LowfellServer();
        await server.InitializeAsync();
        var weaver = new Weaver(server);
        await weaver.Woven("Lock-wall straight");
        var painter = new Hands(server, weaver, new Random(seed));
        await painter.Begin();
        for (var n = 0; n < life[1]; n++)
        {
            var did = await painter.Step();
            await painter.Agrees($"seed {seed}, step {n}: {did}", every: n % 20 == 0);
        }

        await painter.Deliver();
        await painter.Agrees($"seed {seed}, at the end", every: true);
        await using var db = server.Db();
        Assert.Equal(0, await PieceBook.Differences(db, await server.WorkshopId(), TestContext.Current.CancellationToken));
    }

    /// <summary>A layer on one surface: the line it has there, and how it is laid.</summary>
    private sealed record On(Guid Line, int Coats);

    /// <summary>A layer of a treatment: the surfaces it goes over.</summary>
    private sealed record Mark(Guid Step, string Technique, Dictionary<Guid, On> Over);

    /// <summary>The plain list: layers of each treatment from the bottom up, and which surface each zone takes.</summary>
    private sealed record Plain(Dictionary<Guid, List<Mark>> Orders, Dictionary<Guid, (Guid Treatment, Guid Surface)> Takes)
    {
        public Plain Copy() => new(Orders.ToDictionary(o => o.Key, o => o.Value.Select(m => m with { Over = new(m.Over) }).ToList()), new(Takes));

        public List<(Guid Line, string Technique, int Coats)> Stack(Guid zone) =>
            Orders[Takes[zone].Treatment].Where(m => m.Over.ContainsKey(Takes[zone].Surface)).Select(m => (m.Over[Takes[zone].Surface].Line, m.Technique, m.Over[Takes[zone].Surface].Coats)).ToList();
    }

    private sealed class Hands(LowfellServer server, Weaver weaver, Random random)
    {
        private readonly BenchDevice device = new(server, "bench");
        private readonly List<JsonObject> waiting = [];
        private readonly Dictionary<Guid, HashSet<(Guid Zone, Guid Line, Guid Piece)>> told = [];
        private readonly Dictionary<(Guid Step, Guid Surface), Guid> had = [];
        private readonly HashSet<Guid> used = [];
        private readonly Stack<Plain> back = [], forth = [];
        private Plain now = new([], []);
        private Dictionary<Guid, List<Guid>> pieces = [];
        private Guid workshop;

        private static CancellationToken Stop => TestContext.Current.CancellationToken;

        public async Task Begin()
        {
            workshop = await server.WorkshopId();
            await device.Begin();
            foreach (var design in new[] { "Lock-wall straight", "Lock-wall corner" })
                foreach (var zone in await weaver.Zones(design))
                {
                    var sheet = await weaver.Sheet(zone);
                    now.Takes[zone] = (sheet["treatmentId"]!.GetValue<Guid>(), sheet["surfaceId"]!.GetValue<Guid>());
                }

            foreach (var treatment in now.Takes.Values.Select(t => t.Treatment).Distinct().ToList())
                await Learn(treatment);
            await using var db = server.Db();
            foreach (var zone in now.Takes.Keys)
            {
                pieces[zone] = await db.Pieces.Where(p => db.Zones.Any(z => z.Id == zone && z.DesignId == p.DesignId)).OrderBy(p => p.Label).Select(p => p.Id).ToListAsync(Stop);
                foreach (var done in await db.PieceLayers.Where(p => p.ZoneId == zone && p.Coats > 0).ToListAsync(Stop))
                    told.TryAdd(Guid.NewGuid(), [(zone, done.LineId, done.PieceId)]);
            }
        }

        private Task<JsonNode> Order(Guid treatment) => server.Get($"/api/treatments/{treatment}/order");

        /// <summary>Takes over how a treatment is, where the plain list has nothing of it yet.</summary>
        private async Task Learn(Guid treatment)
        {
            now.Orders[treatment] = (await Order(treatment))["steps"]!.AsArray().Select(s => new Mark(
                s!["layer"]!["id"]!.GetValue<Guid>(), s["layer"]!.Text("technique"),
                s["over"]!.AsArray().ToDictionary(l => l!["surfaceId"]!.GetValue<Guid>(), l => new On(l!["lineId"]!.GetValue<Guid>(), (l["own"] ?? s["layer"])!["coats"]!.GetValue<int>())))).ToList();
            foreach (var mark in now.Orders[treatment])
                foreach (var (surface, on) in mark.Over)
                    Keep(mark.Step, surface, on.Line);
        }

        private void Keep(Guid step, Guid surface, Guid line)
        {
            had[(step, surface)] = line;
            used.Add(line);
        }

        private T Any<T>(IReadOnlyList<T> of) => of[random.Next(of.Count)];

        private List<Guid> Some(IReadOnlyList<Guid> of) => of.Where(_ => random.Next(2) == 0).DefaultIfEmpty(of[0]).ToList();

        /// <summary>One thing done by chance; in words what.</summary>
        public async Task<string> Step()
        {
            var treatment = Any(now.Takes.Values.Select(t => t.Treatment).Distinct().Order().ToList());
            return random.Next(12) switch
            {
                0 or 1 => await Lay(treatment),
                2 or 3 => await GoOver(treatment),
                4 => await Move(treatment),
                5 or 6 => await Edit(),
                7 => await Part(),
                8 => await Together(),
                9 => await Turn(),
                _ => await Tell(),
            };
        }

        private void Remember()
        {
            back.Push(now.Copy());
            forth.Clear();
        }

        private async Task<string> Lay(Guid treatment)
        {
            var order = await Order(treatment);
            var (over, above) = (Some(order["surfaces"]!.AsArray().Select(s => s!["id"]!.GetValue<Guid>()).ToList()), random.Next(now.Orders[treatment].Count + 1) - 1);
            Remember();
            var layer = new { id = Guid.NewGuid(), technique = "dust", paint = Array.Empty<object>(), coats = random.Next(1, 4), region = "all", strength = 1, tool = "brush", drying = "air", optional = false, note = "" };
            var answer = await weaver.Sent(HttpMethod.Post, $"/api/treatments/{treatment}/steps", new { version = order["version"], layer, over, aboveId = above < 0 ? (Guid?)null : now.Orders[treatment][above].Step });
            var added = answer["steps"]![above + 1]!;
            var mark = new Mark(added["layer"]!["id"]!.GetValue<Guid>(), "dust", added["over"]!.AsArray().ToDictionary(l => l!["surfaceId"]!.GetValue<Guid>(), l => new On(l!["lineId"]!.GetValue<Guid>(), layer.coats)));
            Assert.Equal(over.Order(), mark.Over.Keys.Order());
            Assert.All(mark.Over.Values, on => Assert.DoesNotContain(on.Line, used));
            foreach (var (surface, on) in mark.Over)
                Keep(mark.Step, surface, on.Line);
            now.Orders[treatment].Insert(above + 1, mark);
            return $"laid a layer over {over.Count}";
        }

        private async Task<string> GoOver(Guid treatment)
        {
            if (now.Orders[treatment].Count == 0)
                return "nothing to lay";
            var (order, mark) = (await Order(treatment), Any(now.Orders[treatment]));
            var over = Some(order["surfaces"]!.AsArray().Select(s => s!["id"]!.GetValue<Guid>()).ToList());
            Remember();
            var answer = await weaver.Sent(HttpMethod.Put, $"/api/treatments/{treatment}/steps/{mark.Step}/over", new { version = order["version"], over });
            var lines = answer["steps"]!.AsArray().Single(s => s!["layer"]!["id"]!.GetValue<Guid>() == mark.Step)!["over"]!.AsArray().ToDictionary(l => l!["surfaceId"]!.GetValue<Guid>(), l => (Line: l!["lineId"]!.GetValue<Guid>(), Coats: (l["own"] ?? answer["steps"]!.AsArray().Single(s => s!["layer"]!["id"]!.GetValue<Guid>() == mark.Step)!["layer"])!["coats"]!.GetValue<int>()));
            Assert.Equal(over.Order(), lines.Keys.Order());
            foreach (var gone in mark.Over.Keys.Except(over).ToList())
                mark.Over.Remove(gone);
            foreach (var surface in over.Where(s => !mark.Over.ContainsKey(s)))
            {
                // Where it lay once it has the line it had; elsewhere one that nothing ever had.
                Assert.True(had.TryGetValue((mark.Step, surface), out var was) ? lines[surface].Line == was || now.Orders[treatment].Exists(m => m.Over.TryGetValue(surface, out var on) && on.Line == was) : !used.Contains(lines[surface].Line));
                mark.Over[surface] = new On(lines[surface].Line, lines[surface].Coats);
                Keep(mark.Step, surface, lines[surface].Line);
            }

            return $"had a layer go over {over.Count}";
        }

        private async Task<string> Move(Guid treatment)
        {
            var marks = now.Orders[treatment];
            if (marks.Count < 2)
                return "nothing to move";
            var (order, mark, above) = (await Order(treatment), Any(marks), Any(marks));
            if (mark == above)
                return "nothing to move";
            Remember();
            await weaver.Sent(HttpMethod.Put, $"/api/treatments/{treatment}/steps/{mark.Step}/place", new { version = order["version"], aboveId = above.Step });
            marks.Remove(mark);
            marks.Insert(marks.IndexOf(above) + 1, mark);
            return "moved a layer";
        }

        private async Task<string> Edit()
        {
            var zone = Any(now.Takes.Keys.Order().ToList());
            var (sheet, (treatment, surface)) = (await weaver.Sheet(zone), now.Takes[zone]);
            var layers = sheet["layers"]!.AsArray();
            if (layers.Count == 0)
                return "nothing to edit";
            var (at, coats, everywhere) = (random.Next(layers.Count), random.Next(1, 6), random.Next(2) == 0);
            var line = layers[at]!["id"]!.GetValue<Guid>();
            if (layers[at]!["coats"]!.GetValue<int>() == coats)
                return "nothing to edit";
            layers[at]!["coats"] = coats;
            Remember();
            await weaver.Sent(HttpMethod.Put, $"/api/plan/zones/{zone}/stack", new JsonObject { ["version"] = sheet["version"]!.DeepClone(), ["layers"] = layers.DeepClone(), ["for"] = everywhere ? "everywhere" : "here" });
            var mark = now.Orders[treatment].Single(m => m.Over.TryGetValue(surface, out var on) && on.Line == line);
            foreach (var other in mark.Over.Keys.Where(s => everywhere || s == surface).ToList())
                mark.Over[other] = mark.Over[other] with { Coats = coats };
            return everywhere ? "edited a layer wherever it lies" : "edited a layer here";
        }

        private async Task<string> Part()
        {
            var zone = Any(now.Takes.Keys.Order().ToList());
            var (treatment, surface) = now.Takes[zone];
            Remember();
            await weaver.Sent(HttpMethod.Post, $"/api/zones/{zone}/part", new { name = (string?)null });
            var sheet = await weaver.Sheet(zone);
            var (own, face) = (sheet["treatmentId"]!.GetValue<Guid>(), sheet["surfaceId"]!.GetValue<Guid>());
            Assert.DoesNotContain(own, now.Orders.Keys);
            var lines = now.Orders[treatment].Where(m => m.Over.ContainsKey(surface)).Select(m => m.Over[surface]).ToList();
            now.Takes[zone] = (own, face);
            await Learn(own);
            Assert.Equal(lines.Select(l => (l.Line, l.Coats)), now.Orders[own].Select(m => (m.Over[face].Line, m.Over[face].Coats)));
            return "parted a zone";
        }

        private async Task<string> Together()
        {
            var treatments = now.Takes.Values.Select(t => t.Treatment).Distinct().Order().ToList();
            if (treatments.Count < 2)
                return "all is together";
            var into = Any(treatments);
            var from = Any(treatments.Where(t => t != into).ToList());
            var (one, other) = (await Order(into), await Order(from));
            var stacks = now.Takes.Keys.ToDictionary(z => z, now.Stack);
            Remember();
            await weaver.Sent(HttpMethod.Post, $"/api/treatments/{into}/together", new { version = one["version"], with = new[] { new { treatmentId = from, version = other["version"] } } });
            foreach (var zone in now.Takes.Keys.ToList())
                if ((await weaver.Sheet(zone)) is var sheet)
                    now.Takes[zone] = (sheet["treatmentId"]!.GetValue<Guid>(), sheet["surfaceId"]!.GetValue<Guid>());
            await Learn(into);
            Assert.All(stacks, s => Assert.Equal(s.Value, now.Stack(s.Key)));
            return "brought two treatments together";
        }

        private async Task<string> Turn()
        {
            var (undo, from, to) = random.Next(3) > 0 ? (true, back, forth) : (false, forth, back);
            if (from.Count == 0)
                return "nothing to turn";
            var (status, answer) = await server.Send(HttpMethod.Post, $"/api/workshops/{workshop}/{(undo ? "undo" : "redo")}", new { });
            Assert.True(status == 200, answer.ToJsonString());
            to.Push(now);
            now = from.Pop();
            return undo ? "took a step back" : "did a step again";
        }

        /// <summary>Tells of work: at once, or later when the plan is another; of one zone, or of all that a layer goes over; or takes it back.</summary>
        private async Task<string> Tell()
        {
            if (random.Next(4) == 0)
                return await Deliver();
            if (random.Next(5) == 0 && told.Keys.Intersect(sent).Order().ToList() is { Count: > 0 } back)
            {
                var gone = Any(back);
                await Deliver();
                await device.Tell(device.Event("taken back", with: e => e["undoesId"] = gone));
                told.Remove(gone);
                return "took work back";
            }

            var zone = Any(now.Takes.Keys.Where(z => now.Stack(z).Count > 0).Order().ToList());
            var ((treatment, surface), piece) = (now.Takes[zone], Any(pieces[zone]));
            var mark = Any(now.Orders[treatment].Where(m => m.Over.ContainsKey(surface)).ToList());
            List<Guid> also = random.Next(2) == 0 ? now.Takes.Where(t => t.Key != zone && t.Value.Treatment == treatment && mark.Over.ContainsKey(t.Value.Surface) && pieces[t.Key].Contains(piece)).Select(t => t.Key).Order().ToList() : [];
            var on = also.Prepend(zone).Select(z => (Zone: z, mark.Over[now.Takes[z].Surface].Line, Piece: piece)).ToList();
            await using var db = server.Db();
            var seen = await Revisions.Laid(db).Where(l => l.Lay.SurfaceId == surface && l.Lay.LineId == on[0].Line).Select(l => l.Layer.Id).FirstAsync(Stop);
            var given = device.Event("given", zone, on[0].Line, [piece], 0, e =>
            {
                e["seenId"] = seen;
                if (also.Count > 0)
                    e["also"] = new JsonArray([.. on.Skip(1).Select(o => (JsonNode)new JsonObject { ["zoneId"] = o.Zone, ["layerId"] = o.Line })]);
            });
            told[given["id"]!.GetValue<Guid>()] = [.. on];
            sent.Add(given["id"]!.GetValue<Guid>());
            waiting.Add(given);
            return random.Next(2) == 0 ? await Deliver() : "worked where there is no line";
        }

        private readonly HashSet<Guid> sent = [];

        public async Task<string> Deliver()
        {
            if (waiting.Count > 0)
                await device.Tell([.. waiting]);
            waiting.Clear();
            return "told what was done";
        }

        /// <summary>Every zone has the layers that it should, under their lines, and on every piece lies what was told.</summary>
        public async Task Agrees(string when, bool every)
        {
            foreach (var zone in every ? now.Takes.Keys.ToList() : [Any(now.Takes.Keys.Order().ToList())])
            {
                var layers = (await weaver.Sheet(zone))["layers"]!.AsArray().Select(l => (l!["id"]!.GetValue<Guid>(), l.Text("technique"), l["coats"]!.GetValue<int>())).ToList();
                Assert.True(now.Stack(zone).SequenceEqual(layers), $"{when}\n{string.Join('\n', now.Stack(zone))}\n--\n{string.Join('\n', layers)}");
            }

            await using var db = server.Db();
            var zones = now.Takes.Keys.ToList();
            var laid = (await db.PieceLayers.Where(p => zones.Contains(p.ZoneId) && p.Coats > 0).Select(p => new { p.ZoneId, p.LineId, p.PieceId }).ToListAsync(Stop)).Select(p => (p.ZoneId, p.LineId, p.PieceId)).ToHashSet();
            laid.SymmetricExceptWith(told.Where(t => !waiting.Exists(w => w["id"]!.GetValue<Guid>() == t.Key)).SelectMany(t => t.Value));
            Assert.True(laid.Count == 0, $"{when}: {string.Join(' ', laid)}");
        }
    }
}
