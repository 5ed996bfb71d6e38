import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { hindered } from "../../api/hindered";
import { materialsQuery, workshopsQuery } from "../../api/queries";
import { Button } from "../../kit/Button";
import { useCommands } from "../../kit/keys";
import { NotHere } from "../../kit/NotHere";
import { groupsOf } from "../../kit/tiles";
import { Tiles } from "../../kit/Tiles";
import { Trouble } from "../../kit/Trouble";
import { Away } from "./Away";
import { FilesDialog } from "./FilesDialog";
import { MaterialForm } from "./MaterialForm";
import { MaterialTile } from "./MaterialTile";
import { Nearest } from "./Nearest";
import { matches } from "./search";

/** Materials as drawdown cards, found by typing; the chosen one opens beside them. */
export function Component() {
  const { workshopId = "", materialId } = useParams();
  const shelf = useQuery(materialsQuery(workshopId));
  const { data, refetch, isFetching } = shelf;
  const error = hindered(shelf);
  const { data: workshops } = useQuery(workshopsQuery);
  const [words, setWords] = useState("");
  const [files, setFiles] = useState(false);
  const navigate = useNavigate();
  const box = useRef<HTMLInputElement>(null);

  // What is typed stands at once; what is found follows when there is time.
  const sought = useDeferredValue(words);
  const colour = /^#[0-9a-f]{6}$/i.test(sought.trim()) ? sought.trim().toLowerCase() : null;
  const found = useMemo(() => (data ?? []).filter((m) => matches(m, sought)), [data, sought]);
  const groups = useMemo(() => groupsOf(found, (m) => m.maker || "No maker given"), [found]);
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
  const chosen = data.find((m) => m.id === materialId);
  const open = (id: string) => void navigate(`/shelf/${workshopId}/${id}`);

  return (
    <div
      className={`grid h-full min-h-0 ${materialId ? "grid-cols-1 md:grid-cols-[minmax(0,1fr)_400px]" : "grid-cols-1"}`}
    >
      <div className={`min-h-0 flex-col ${materialId ? "hidden md:flex" : "flex"}`}>
        <div className="flex flex-wrap items-center gap-x-3 gap-y-1.5 px-5 pt-3 pb-2">
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
            {isFetching && data.length >= 1000 && ", reading on…"}
          </span>
          <span className="ml-auto" />
          <Away workshopId={workshopId} />
          <Button aria-haspopup="dialog" onClick={() => setFiles(true)}>
            Files…
          </Button>
          <Button tone="plain" onClick={() => open("new")}>
            Add a material
          </Button>
        </div>
        {data.length > 0 && !colour && found.length > 0 ? (
          <Tiles
            label="Materials"
            groups={groups}
            least={206}
            high={122}
            inSight={materialId}
            render={(m) => (
              <MaterialTile material={m} chosen={m.id === materialId} onOpen={() => open(m.id)} />
            )}
          />
        ) : (
          <div className="min-h-0 flex-1 overflow-y-auto px-5 pb-6">
            {data.length === 0 ? (
              <Empty onAdd={() => open("new")} />
            ) : colour ? (
              <Nearest workshopId={workshopId} colour={colour} onOpen={open} />
            ) : (
              <p className="py-8 text-soft">
                Nothing on the shelf answers to “{sought}”.{" "}
                <button type="button" className="underline" onClick={() => setWords("")}>
                  Show everything
                </button>
              </p>
            )}
          </div>
        )}
      </div>
      {files && <FilesDialog workshopId={workshopId} onClose={() => setFiles(false)} />}
      {materialId && !chosen && materialId !== "new" && !isFetching && (
        <NotHere
          what="This shelf has no such material. It may have been taken off."
          to={`/shelf/${workshopId}`}
          words="Show the shelf"
        />
      )}
      {materialId && (chosen || materialId === "new") && (
        <MaterialForm
          key={materialId}
          workshopId={workshopId}
          currency={workshops?.find((w) => w.id === workshopId)?.currency ?? ""}
          material={chosen}
          onOpen={(id) => void navigate(`/shelf/${workshopId}/${id}`, { replace: true })}
          onClose={() => void navigate(`/shelf/${workshopId}`)}
        />
      )}
    </div>
  );
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
