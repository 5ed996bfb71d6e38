using System.Diagnostics;
using System.Text;

namespace Lowfell.Mutants;

/// <summary>Other programs, run to their end or to the end of patience.</summary>
public static class Run
{
    /// <summary>How it ended, null where patience did, and what it said.</summary>
    public static async Task<(int? Code, string Said)> To(string folder, TimeSpan patience, Dictionary<string, string> with, params string[] command)
    {
        var info = new ProcessStartInfo(command[0]) { WorkingDirectory = folder, RedirectStandardOutput = true, RedirectStandardError = true };
        foreach (var argument in command.Skip(1))
            info.ArgumentList.Add(argument);
        foreach (var (name, value) in with)
            info.Environment[name] = value;
        using var process = Process.Start(info)!;
        var said = new StringBuilder();
        void Take(string? line)
        {
            lock (said)
                said.AppendLine(line);
        }

        process.OutputDataReceived += (_, e) => Take(e.Data);
        process.ErrorDataReceived += (_, e) => Take(e.Data);
        process.BeginOutputReadLine();
        process.BeginErrorReadLine();
        using var late = new CancellationTokenSource(patience);
        try
        {
            await process.WaitForExitAsync(late.Token);
            return (process.ExitCode, said.ToString());
        }
        catch (OperationCanceledException)
        {
            process.Kill(entireProcessTree: true);
            return (null, said.ToString());
        }
    }
}
