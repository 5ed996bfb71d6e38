using System.Net;
using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using QRCoder;

namespace Lowfell.Server.Devices;

/// <summary>Bench on another device: the door they come in by, keys to take them in with, and sending them away.</summary>
public static class DevicesEndpoints
{
    private const int UsualPort = 5211, MostDevices = 100;

    public static void MapDevices(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/devices/{workshopId:guid}").WithTags("Devices");
        group.MapGet("/", Of).WithName("devices").WithSummary("Other devices, and whether they can come in.").ProducesProblem(404);
        group.MapPut("/door", OpenDoor).WithName("openDoor").WithSummary("Lets other devices in, encrypted, at an address of this machine.").AddEndpointFilter(LookAfter).Writes<DoorTold>();
        group.MapDelete("/door", ShutDoor).WithName("shutDoor").WithSummary("Lets no other device in; those that were taken in stay so.").AddEndpointFilter(LookAfter).Writes<DoorTold>();
        group.MapPost("/authority", Renew).WithName("makeAuthority").WithSummary("A new authority in place of the old one, for the day its key is lost or in wrong hands: devices that trusted the old one have to trust the new one.").AddEndpointFilter(LookAfter).Writes<AuthorityTold>();
        var secret = app.ServiceProvider.GetRequiredService<OwnSecret>();
        group.MapPost("/keys", MakeKey).WithName("makePairingKey").WithSummary("A key to take one device in with: once, within five minutes.").Writes<KeyTold, PairingKey>((told, _) => Task.FromResult(Tell(told, secret)), StatusCodes.Status201Created);
        group.MapDelete("/{deviceId:guid}", SendAway).WithName("sendDeviceAway").WithSummary("Sends a device away: from now on it gets nothing.").Writes<SentAway>();
    }

    /// <summary>What is stored is done before the answer goes out, whether anybody still waits for that or not.</summary>
    private static async ValueTask<object?> LookAfter(EndpointFilterInvocationContext invocation, EndpointFilterDelegate next)
    {
        var answer = await next(invocation);
        await invocation.HttpContext.RequestServices.GetRequiredService<Door>().Look(CancellationToken.None);
        return answer;
    }

    private static async Task<Results<Ok<DevicesReading>, ProblemHttpResult>> Of(Guid workshopId, LowfellDb db, Door door, Certificates certificates, Restored restored, CancellationToken stop)
    {
        if (!await db.Workshops.AnyAsync(w => w.Id == workshopId, stop))
            return Problems.NotFound("workshop");
        var authority = await certificates.State(stop);
        var devices = await db.PairedDevices.AsNoTracking().Where(d => d.WorkshopId == workshopId).OrderBy(d => d.SentAwayAt != null).ThenByDescending(d => d.PairedAt).Take(MostDevices)
            .Select(d => new DeviceEntry(d.Id, d.Name, d.Role, d.PairedAt, d.SeenAt, d.SentAwayAt)).ToListAsync(stop);
        return TypedResults.Ok(new DevicesReading(
            workshopId, Door.Addresses().Where(Authority.IsOwn).Select(a => a.ToString()).ToList(), UsualPort, door.Open?.ToString() ?? "", door.Trouble, new AuthorityReading(authority.Fingerprint, authority.MadeAt, authority.GoodUntil, authority.Trouble), restored.At, devices));
    }

    private static async Task<Outcome<DoorTold>> OpenDoor(Guid workshopId, DoorIn entry, Write write, Door door)
    {
        if (!await write.Db.Workshops.AnyAsync(w => w.Id == workshopId, write.Stop))
            return Problems.NotFound("workshop");
        write.In(workshopId);
        var faults = new Faults();
        faults.Require(IPAddress.TryParse(entry.Address, out var address) && !address.Equals(IPAddress.Any) && !address.Equals(IPAddress.IPv6Any), "address", "Give one address of this machine, for example 192.168.1.20.");
        faults.Range(entry.Port, "port", 1, 65_535);
        if (faults.Any)
            return faults.ToProblem();
        var at = new IPEndPoint(address!, entry.Port ?? UsualPort);
        if (!Equals(door.Open, at) && Door.Hinders(at) is { Length: > 0 } why)
            return Faults.One(why.StartsWith("Port", StringComparison.Ordinal) ? "port" : "address", why);
        if (!Authority.IsOwn(at.Address))
            return Faults.One("address", $"{at.Address} is an address that the whole internet can reach. The door opens at addresses of your own network: 10.…, 172.16.… to 172.31.…, 192.168.….");
        if (await write.Db.Doors.FirstOrDefaultAsync(write.Stop) is { } row)
            (row.Address, row.Port, row.OpenedAt) = (at.Address.ToString(), at.Port, write.Now);
        else
            write.Db.Add(new DoorRow { Address = at.Address.ToString(), Port = at.Port, OpenedAt = write.Now });
        await write.Save();
        return new DoorTold(workshopId, at.ToString());
    }

    private static async Task<Outcome<AuthorityTold>> Renew(Guid workshopId, Write write, Certificates certificates)
    {
        if (!await write.Db.Workshops.AnyAsync(w => w.Id == workshopId, write.Stop))
            return Problems.NotFound("workshop");
        write.In(workshopId);
        await certificates.Replace(write.Db, write.Stop);
        write.Touch(Slice.Devices);
        await write.Save();
        return new AuthorityTold(workshopId, write.Now);
    }

    private static async Task<Outcome<DoorTold>> ShutDoor(Guid workshopId, Write write)
    {
        if (!await write.Db.Workshops.AnyAsync(w => w.Id == workshopId, write.Stop))
            return Problems.NotFound("workshop");
        write.In(workshopId);
        if (await write.Db.Doors.FirstOrDefaultAsync(write.Stop) is { } row)
            write.Db.Remove(row);
        await write.Save();
        return new DoorTold(workshopId, "");
    }

    private static async Task<Outcome<KeyTold>> MakeKey(Guid workshopId, PairingKeyIn entry, Write write, Door door, OwnSecret secret)
    {
        if (!await write.Db.Workshops.AnyAsync(w => w.Id == workshopId, write.Stop))
            return Problems.NotFound("workshop");
        write.In(workshopId);
        if (entry.Role is not { } role)
            return Faults.One("role", "Say what the device may do: look, work or measure.");
        if (await write.Db.PairedDevices.CountAsync(d => d.WorkshopId == workshopId && d.SentAwayAt == null, write.Stop) >= MostDevices)
            return Problems.Of(StatusCodes.Status409Conflict, "too-many", $"{MostDevices} devices are the most a workshop has. Send some away first.");
        var row = new PairingKeyRow { WorkshopId = workshopId, KeyHash = Elsewhere.Hash(Pairing.KeyOf(secret, write.Id)), Role = role, MadeAt = write.Now, GoodUntil = write.Now + Pairing.Good };
        write.Db.Add(row);
        await write.Save();
        return new KeyTold(workshopId, write.Id, role, row.GoodUntil, door.Open?.ToString() ?? "");
    }

    private static PairingKey Tell(KeyTold told, OwnSecret secret)
    {
        var key = Pairing.KeyOf(secret, told.Id);

        // Behind the hash it stays in the browser: no log of any server has it.
        var address = told.At.Length == 0 ? "" : $"https://{told.At}{Elsewhere.PairPage}#{key}";
        return new PairingKey(told.WorkshopId, Pairing.InGroups(key), told.Role, told.GoodUntil, address, address.Length == 0 ? [] : Square(address));
    }

    private static List<string> Square(string text)
    {
        using var generator = new QRCodeGenerator();
        using var code = generator.CreateQrCode(text, QRCodeGenerator.ECCLevel.M);
        return code.ModuleMatrix.Select(row => string.Concat(row.Cast<bool>().Select(dark => dark ? '1' : '0'))).ToList();
    }

    private static async Task<Outcome<SentAway>> SendAway(Guid workshopId, Guid deviceId, Write write)
    {
        if (await write.Db.PairedDevices.FirstOrDefaultAsync(d => d.Id == deviceId && d.WorkshopId == workshopId, write.Stop) is not { } row)
            return Problems.NotFound("device");
        write.In(workshopId);
        row.SentAwayAt ??= write.Now;
        await write.Save();
        return new SentAway(workshopId, deviceId);
    }
}
