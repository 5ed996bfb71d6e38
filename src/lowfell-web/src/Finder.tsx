import { useQuery } from "@tanstack/react-query";
import { useMemo, useState, type KeyboardEvent } from "react";
import { useNavigate } from "react-router";
import { materialsQuery, overviewQuery, workshopsQuery } from "./api/queries";
import { Dialog } from "./kit/Dialog";
import { find } from "./kit/find";
import { keyboard, keyOf, useAllCommands } from "./kit/keys";

type Entry = { id: string; text: string; kind: string; key?: string; run: () => void };

const MOST_ROWS = 40;

/** Goes to anything that has a name, and does anything the view can do. */
export function Finder(props: { setId?: string; workshopId?: string; onClose: () => void }) {
  const { setId, workshopId, onClose } = props;
  const navigate = useNavigate();
  const scopes = useAllCommands();
  const { data: workshops } = useQuery(workshopsQuery);
  const { data: overview } = useQuery({ ...overviewQuery(setId ?? ""), enabled: !!setId });
  const { data: materials } = useQuery({ ...materialsQuery(workshopId ?? ""), enabled: !!workshopId });
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState(0);

  const entries = useMemo((): Entry[] => {
    const go = (to: string) => () => void navigate(to);
    return [
      ...scopes.flatMap((s) =>
        s.commands
          .filter((c) => c.run && c.id !== "finder")
          .map((c) => ({
            id: c.id,
            text: c.says,
            kind: s.name,
            key: keyOf(c),
            run: () => void keyboard.does(c.id),
          })),
      ),
      ...(workshops ?? [])
        .filter((w) => !w.putAwayAt)
        .flatMap((w) =>
          w.sets.map((s) => ({ id: s.id, text: s.name, kind: `set of ${w.name}`, run: go(`/plan/${s.id}`) })),
        ),
      ...(overview?.designs ?? []).flatMap((d) => [
        ...d.zones.map((z) => ({
          id: z.id,
          text: `${z.name}, ${d.name}`,
          kind: "zone",
          run: go(`/plan/${overview!.setId}/${z.id}`),
        })),
        {
          id: d.id,
          text: d.name,
          kind: "design, from the table",
          run: go(`/table/${overview!.setId}/${d.id}`),
        },
      ]),
      ...(materials ?? []).map((m) => ({
        id: m.id,
        text: m.name,
        kind: [m.kind, m.maker].filter(Boolean).join(", "),
        run: go(`/shelf/${workshopId}/${m.id}`),
      })),
    ];
  }, [scopes, workshops, overview, materials, navigate, workshopId]);
  const found = useMemo(() => find(entries, (e) => e.text, typed), [entries, typed]);
  const shown = found.slice(0, MOST_ROWS);
  const active = Math.min(at, shown.length - 1);
  const take = (entry: Entry | undefined) => {
    if (!entry) return;
    onClose();
    // Once the focus is back in the view.
    requestAnimationFrame(() => requestAnimationFrame(entry.run));
  };
  const onKeyDown = (e: KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1, PageDown: 8, PageUp: -8 }[e.key];
    if (step) {
      e.preventDefault();
      setAt(Math.max(0, Math.min(shown.length - 1, active + step)));
    } else if (e.key === "Enter") {
      e.preventDefault();
      take(shown[active]);
    }
  };
  return (
    <Dialog open onClose={onClose} title="Find">
      <input
        aria-label="A view, a set, a design, a zone, a material, or what to do"
        placeholder="A view, a zone, a material, or what to do…"
        role="combobox"
        aria-expanded
        aria-controls="found"
        aria-activedescendant={shown[active] ? `found-${active}` : undefined}
        autoComplete="off"
        spellCheck={false}
        autoFocus
        value={typed}
        onChange={(e) => {
          setTyped(e.target.value);
          setAt(0);
        }}
        onKeyDown={onKeyDown}
        className="min-h-[34px] w-full rounded-[3px] border border-line bg-card px-2.5 placeholder:text-soft"
      />
      <ul id="found" role="listbox" aria-label="Found" className="mt-2 h-[46vh] overflow-y-auto">
        {shown.map((e, i) => (
          <li
            key={`${e.kind} ${e.id}`}
            id={`found-${i}`}
            role="option"
            aria-selected={i === active}
            ref={(row) => {
              if (i === active) row?.scrollIntoView({ block: "nearest" });
            }}
            onPointerDown={(ev) => ev.preventDefault()}
            onClick={() => take(e)}
            className={`flex cursor-default items-baseline gap-3 rounded-[2px] px-2 py-1 ${i === active ? "bg-tide text-on-tide" : ""}`}
          >
            <span className="min-w-0 truncate">{e.text.charAt(0).toUpperCase() + e.text.slice(1)}</span>
            <span className="ml-auto shrink-0 text-xs opacity-80">{e.kind}</span>
            {e.key && (
              <kbd className="shrink-0 rounded-[2px] border border-current px-1 text-xs">
                {e.key.replaceAll("+", " ")}
              </kbd>
            )}
          </li>
        ))}
      </ul>
      <p role="status" className="mt-2 text-xs text-soft">
        {shown.length === 0
          ? `Nothing is called “${typed}”.`
          : found.length > shown.length
            ? `${found.length - shown.length} more: type on.`
            : "Enter takes the marked one, Escape closes."}
      </p>
    </Dialog>
  );
}
