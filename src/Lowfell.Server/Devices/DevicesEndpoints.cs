using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
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
        group.MapPost("/keys", MakeKey).WithName("makePairingKey").WithSummary("A key to take one device in with: once, within five minutes.").Writes<KeyTold, PairingKey>(Tell, StatusCodes.Status201Created);
        group.MapDelete("/{deviceId:guid}", SendAway).WithName("sendDeviceAway").WithSummary("Sends a device away: from now on it gets nothing.").Writes<SentAway>();
    }

    /// <summary>What is stored is done before the answer goes out, whether anybody still waits for that or not.</summary>
    private static async ValueTask<object?> LookAfter(EndpointFilterInvocationContext invocation, EndpointFilterDelegate next)
    {
        var answer = await next(invocation);
        await invocation.HttpContext.RequestServices.GetRequiredService<Door>().Look(CancellationToken.None);
        return answer;
    }

    private static async Task<Results<Ok<DevicesReading>, ProblemHttpResult>> Of(Guid workshopId, LowfellDb db, Door door, Certificates certificates, CancellationToken stop)
    {
        if (!await db.Workshops.AnyAsync(w => w.Id == workshopId, stop))
            return Problems.NotFound("workshop");
        using var authority = await certificates.Authority(stop);
        var devices = await db.PairedDevices.AsNoTracking().Where(d => d.WorkshopId == workshopId).OrderBy(d => d.SentAwayAt != null).ThenByDescending(d => d.PairedAt).Take(MostDevices)
            .Select(d => new DeviceEntry(d.Id, d.Name, d.Role, d.PairedAt, d.SeenAt, d.SentAwayAt)).ToListAsync(stop);
        return TypedResults.Ok(new DevicesReading(
            workshopId, Door.Addresses().Select(a => a.ToString()).ToList(), UsualPort, door.Open?.ToString() ?? "", door.Trouble, authority.GetCertHashString(HashAlgorithmName.SHA256), devices));
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
        if (await write.Db.Doors.FirstOrDefaultAsync(write.Stop) is { } row)
            (row.Address, row.Port, row.OpenedAt) = (at.Address.ToString(), at.Port, write.Now);
        else
            write.Db.Add(new DoorRow { Address = at.Address.ToString(), Port = at.Port, OpenedAt = write.Now });
        await write.Save();
        return new DoorTold(workshopId, at.ToString());
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

    private static async Task<Outcome<KeyTold>> MakeKey(Guid workshopId, PairingKeyIn entry, Write write, Door door)
    {
        if (!await write.Db.Workshops.AnyAsync(w => w.Id == workshopId, write.Stop))
            return Problems.NotFound("workshop");
        write.In(workshopId);
        if (entry.Role is not { } role)
            return Faults.One("role", "Say what the device may do: look, work or measure.");
        if (await write.Db.PairedDevices.CountAsync(d => d.WorkshopId == workshopId && d.SentAwayAt == null, write.Stop) >= MostDevices)
            return Problems.Of(StatusCodes.Status409Conflict, "too-many", $"{MostDevices} devices are the most a workshop has. Send some away first.");
        var key = Pairing.NewKey();
        var row = new PairingKeyRow { WorkshopId = workshopId, KeyHash = Elsewhere.Hash(key), Role = role, MadeAt = write.Now, GoodUntil = write.Now + Pairing.Good };
        write.Db.Add(row);
        await write.Save();
        return new KeyTold(workshopId, key, role, row.GoodUntil, door.Open?.ToString() ?? "");
    }

    private static Task<PairingKey> Tell(KeyTold told, Telling telling)
    {
        // Behind the hash it stays in the browser: no log of any server has it.
        var address = told.At.Length == 0 ? "" : $"https://{told.At}{Elsewhere.PairPage}#{told.Key}";
        return Task.FromResult(new PairingKey(told.WorkshopId, Pairing.InGroups(told.Key), told.Role, told.GoodUntil, address, address.Length == 0 ? [] : Square(address)));
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
