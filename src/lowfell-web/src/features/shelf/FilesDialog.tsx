import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, Refused, take, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { Dialog } from "../../kit/Dialog";
import { plural } from "../../kit/severity";
import { Alert } from "../../kit/Alert";
import { Cell, Row, Table } from "../../kit/Table";

type Read = { name: string; text: string; palette: boolean; said: Schema["ImportReading"] };

const link =
  "inline-flex min-h-[26px] items-center rounded-[3px] border border-line bg-card px-2.5 text-xs hover:border-ink";

/** The shelf out to files and in from them; what comes in is looked at first, and only a file without faults is stored. */
export function FilesDialog({ workshopId, onClose }: { workshopId: string; onClose: () => void }) {
  const queries = useQueryClient();
  const [read, setRead] = useState<Read | null>(null);
  const [fault, setFault] = useState("");
  const [busy, setBusy] = useState(false);
  const send = async (name: string, text: string, store: boolean) => {
    const palette = /^\uFEFF?GIMP Palette/.test(text);
    const request = { params: { path: { workshopId } }, body: { text, store } };
    setBusy(true);
    try {
      const said = await take(
        palette
          ? api.POST("/api/shelf/{workshopId}/palette", request)
          : api.POST("/api/shelf/{workshopId}/csv", request),
      );
      setFault("");
      setRead({ name, text, palette, said });
      if (said.stored) void queries.invalidateQueries({ queryKey: ["materials", workshopId] });
    } catch (error) {
      if (error instanceof Refused) setFault(error.message);
    } finally {
      setBusy(false);
    }
  };
  const said = read?.said;
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Files of the shelf"
      says="Materials as CSV, one a line with the columns named in the first; colours as a GIMP palette, .gpl."
    >
      <div className="flex flex-wrap items-center gap-2">
        <a className={link} href={`/api/shelf/${workshopId}/materials.csv`} download="shelf.csv">
          The shelf as CSV
        </a>
        <a className={link} href={`/api/shelf/${workshopId}/palette.gpl`} download="shelf.gpl">
          Its colours as a palette
        </a>
        <label className={`${link} cursor-pointer focus-within:outline-2 focus-within:outline-tide`}>
          Bring in a file…
          <input
            type="file"
            accept=".csv,.gpl,text/csv,text/plain"
            className="sr-only"
            onChange={(e) => {
              const file = e.target.files?.[0];
              e.target.value = "";
              if (file) void file.text().then((text) => send(file.name, text, false));
            }}
          />
        </label>
      </div>
      {busy && <p className="mt-3 text-soft">Reading…</p>}
      {fault && <Alert className="mt-3">{fault}</Alert>}
      {read && said && !busy && (
        <section className="mt-3" aria-live="polite" aria-label={read.name}>
          <p>
            <b>{read.name}</b>: {plural(said.rows, read.palette ? "colour" : "material")}
            {said.stored
              ? ", all on the shelf now."
              : said.faultCount > 0
                ? `, ${plural(said.faultCount, "fault")}. Nothing is stored until there are none.`
                : ", nothing wrong with it. Nothing is stored yet."}
          </p>
          {said.faultCount > 0 && (
            <Table
              caption="What is wrong"
              className="mt-2 text-xs"
              data-faults
              heads={[
                { text: "Line", className: "w-14" },
                { text: "Column", className: "w-32" },
                { text: "What to do" },
              ]}
            >
              {said.faults.slice(0, 60).map((f, i) => (
                <Row key={i} head={f.line}>
                  <Cell>{f.field}</Cell>
                  <Cell>{f.message}</Cell>
                </Row>
              ))}
            </Table>
          )}
          {!said.stored && said.faultCount === 0 && (
            <>
              <p className="mt-1 text-xs text-soft">
                {said.first.join(", ")}
                {said.rows > said.first.length && ` and ${said.rows - said.first.length} more`}
                {read.palette && ". Only their colours are known: how well they hide is an estimate."}
              </p>
              <Button tone="go" className="mt-2" onClick={() => void send(read.name, read.text, true)}>
                Put them on the shelf
              </Button>
            </>
          )}
        </section>
      )}
      <div className="mt-4">
        <Button onClick={onClose}>Close</Button>
      </div>
    </Dialog>
  );
}
