using System.Globalization;

namespace Lowfell.Script.Tests;

/// <summary>Many things at once, for a while, with everything going wrong that can: <c>./lowfell soak [minutes] [seed]</c>; a little of it with every run of the tests.</summary>
public sealed class SoakTests(Begun begun)
{
    private const double UsualMinutes = 0.4;

    [Fact]
    public async Task A_week_of_a_workshop_loses_nothing_whatever_fails()
    {
        var minutes = double.Parse(Environment.GetEnvironmentVariable("LOWFELL_SOAK_MINUTES") ?? FormattableString.Invariant($"{UsualMinutes}"), CultureInfo.InvariantCulture);
        var seed = int.Parse(Environment.GetEnvironmentVariable("LOWFELL_SOAK_SEED") ?? $"{Random.Shared.Next(1_000_000)}", CultureInfo.InvariantCulture);
        await using var place = new Place();
        Directory.CreateDirectory(place.Data);

        // A disk of its own, so that it can fill up; where none can be had, that is left out and the table says so.
        var ownDisk = (await Place.Wait(place.Launch("mount", "-t", "tmpfs", "-o", "size=900m,mode=755", "tmpfs", place.Data))).Code == 0;
        try
        {
            await begun.Into(place);
            await place.Start();
            using var week = new Week(place, seed, ownDisk);
            await week.Begin();
            var script = place.Newest;
            await week.Work(TimeSpan.FromMinutes(minutes), async () =>
            {
                await script.WaitForExitAsync(TestContext.Current.CancellationToken);
                script = await place.Start();
            }, () => script.HasExited);
            await week.Look();
            var table = $"seed {seed}, {minutes.ToString(CultureInfo.InvariantCulture)} minutes{(ownDisk ? "" : ", without a disk to fill")}\n{week.Table()}";
            foreach (var row in table.Split('\n'))
                Console.WriteLine($"figure: {row}");
            if (Environment.GetEnvironmentVariable("LOWFELL_SOAK_TABLE") is { } file)
                await File.WriteAllTextAsync(file, table + "\n", TestContext.Current.CancellationToken);
            await place.Run("stop");
        }
        finally
        {
            await place.End();
            if (ownDisk)
                await Place.Wait(place.Launch("umount", "-l", place.Data));
        }
    }
}
