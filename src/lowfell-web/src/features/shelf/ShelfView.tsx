import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";
import type { Schema } from "../../api/client";
import { materialsQuery } from "../../api/queries";
import { Button } from "../../kit/Button";
import { useCommands } from "../../kit/keys";
import { Trouble } from "../../kit/Trouble";
import { FilesDialog } from "./FilesDialog";
import { MaterialForm } from "./MaterialForm";
import { MaterialTile } from "./MaterialTile";
import { Nearest } from "./Nearest";
import { matches } from "./search";

/** Materials as drawdown cards, found by typing; the chosen one opens beside them. */
export function Component() {
  const { workshopId = "", materialId } = useParams();
  const { data, error, refetch } = useQuery(materialsQuery(workshopId));
  const [words, setWords] = useState("");
  const [files, setFiles] = useState(false);
  const navigate = useNavigate();
  const box = useRef<HTMLInputElement>(null);

  useEffect(() => {
    // The cards flow anew when the form opens beside them; the chosen one stays in sight.
    if (materialId) document.querySelector("main [aria-current=true]")?.scrollIntoView({ block: "nearest" });
  }, [materialId]);
  const there = !!data;
  useEffect(() => {
    if (there && !materialId) box.current?.focus();
  }, [there, materialId]);
  useCommands(
    "On the shelf",
    [
      {
        id: "view shelf",
        key: "/",
        says: "find a material",
        run: () => {
          box.current?.focus();
          box.current?.select();
        },
      },
      {
        id: "shelf add",
        key: "a",
        says: "add a material",
        run: () => void navigate(`/shelf/${workshopId}/new`),
      },
    ],
    { view: true, ready: there || !!error },
  );

  if (error) return <Trouble error={error} retry={() => void refetch()} />;
  if (!data) return <p className="p-6 text-soft">Reading the shelf…</p>;
  const colour = /^#[0-9a-f]{6}$/i.test(words.trim()) ? words.trim().toLowerCase() : null;
  const found = data.filter((m) => matches(m, words));
  const chosen = data.find((m) => m.id === materialId);
  const open = (id: string) => void navigate(`/shelf/${workshopId}/${id}`);

  return (
    <div className={`grid h-full min-h-0 ${materialId ? "grid-cols-[minmax(0,1fr)_400px]" : "grid-cols-1"}`}>
      <div className="flex min-h-0 flex-col">
        <div className="flex items-center gap-3 px-5 pt-3 pb-2">
          <h1 className="text-lg font-semibold">Shelf</h1>
          <label className="sr-only" htmlFor="find">
            Find a material
          </label>
          <input
            id="find"
            ref={box}
            type="search"
            value={words}
            onChange={(e) => setWords(e.target.value)}
            placeholder="Find by name, kind, sheen… or a colour, #7a6248"
            className="min-h-[30px] w-full max-w-sm rounded-[3px] border border-line bg-card px-2.5 py-1 placeholder:text-soft"
          />
          <span role="status" className="text-xs whitespace-nowrap text-soft">
            {colour ? "by colour" : `${found.length} of ${data.length}`}
          </span>
          <Button className="ml-auto" onClick={() => setFiles(true)}>
            Files…
          </Button>
          <Button tone="plain" onClick={() => open("new")}>
            Add a material
          </Button>
        </div>
        <div className="min-h-0 flex-1 overflow-y-auto px-5 pb-6">
          {data.length === 0 ? (
            <Empty onAdd={() => open("new")} />
          ) : colour ? (
            <Nearest workshopId={workshopId} colour={colour} onOpen={open} />
          ) : found.length === 0 ? (
            <p className="py-8 text-soft">
              Nothing on the shelf answers to “{words}”.{" "}
              <button type="button" className="underline" onClick={() => setWords("")}>
                Show everything
              </button>
            </p>
          ) : (
            groups(found).map(([maker, list]) => (
              <section key={maker} aria-label={maker || "No maker"} className="mt-3">
                <h2 className="mb-1.5 text-xs text-soft">{maker || "No maker given"}</h2>
                <ul className="grid grid-cols-[repeat(auto-fill,minmax(206px,1fr))] gap-2.5">
                  {list.map((m) => (
                    <li key={m.id}>
                      <MaterialTile material={m} chosen={m.id === materialId} onOpen={() => open(m.id)} />
                    </li>
                  ))}
                </ul>
              </section>
            ))
          )}
        </div>
      </div>
      {files && <FilesDialog workshopId={workshopId} onClose={() => setFiles(false)} />}
      {materialId && (chosen || materialId === "new") && (
        <MaterialForm
          key={materialId}
          workshopId={workshopId}
          material={chosen}
          onOpen={open}
          onClose={() => void navigate(`/shelf/${workshopId}`)}
        />
      )}
    </div>
  );
}

function groups(list: Schema["MaterialCard"][]) {
  const by = new Map<string, Schema["MaterialCard"][]>();
  for (const m of list) by.set(m.maker, [...(by.get(m.maker) ?? []), m]);
  return [...by];
}

function Empty({ onAdd }: { onAdd: () => void }) {
  return (
    <div className="max-w-lg py-8">
      <h2 className="text-base font-semibold">The shelf is empty</h2>
      <p className="mt-1 text-soft">
        A material needs a name, what it is and what carries it. Its colour may be typed; best is one coat
        over black and over white paper, because then Lowfell knows how well it hides.
      </p>
      <Button tone="go" className="mt-3" onClick={onAdd}>
        Add the first material
      </Button>
    </div>
  );
}
