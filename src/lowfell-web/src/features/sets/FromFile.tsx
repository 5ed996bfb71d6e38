import { useNavigate } from "react-router";
import { api, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { useChange } from "../../shared/useChange";

/** Takes in a set that was kept as a file, here or elsewhere: it comes beside what is there. */
export function FromFile({ workshopId }: { workshopId: string }) {
  const [change, busy] = useChange(workshopId);
  const navigate = useNavigate();
  const take = async (file: File) => {
    const taken = await change<Schema["SetTakenIn"]>(
      (t) => `${t.name} is on this bench.`,
      (headers) =>
        api.POST("/api/workshops/{workshopId}/sets/file", {
          params: { path: { workshopId } },
          headers: { ...headers, "Content-Type": "application/zip" },
          body: file as never,
          bodySerializer: (b) => b as unknown as string,
        }),
    );
    if (taken) await navigate(`/plan/${taken.setId}`);
  };
  return (
    <>
      <Button
        disabled={busy}
        onClick={() => document.querySelector<HTMLInputElement>("#set-from-file")?.click()}
      >
        {busy ? "Taking it in…" : "From a file…"}
      </Button>
      <input
        id="set-from-file"
        type="file"
        accept=".zip,application/zip"
        aria-label="The file of a set"
        tabIndex={-1}
        className="sr-only"
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) void take(file);
        }}
      />
    </>
  );
}
