import { useWrite } from "../../api/writes";
import { Choice } from "../../kit/Field";
import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { hindered } from "../../api/hindered";
import { Link, useParams } from "react-router";
import { api, Refused, take, type Schema } from "../../api/client";
import { Button } from "../../kit/Button";
import { useSay } from "../../kit/Toast";
import { useCommands } from "../../kit/keys";
import { Trouble } from "../../kit/Trouble";
import { Wide } from "../../kit/Wide";
import { differs, ml, money } from "../../shared/words";
import { Currency } from "./Currency";
import { MoveDialog } from "./MoveDialog";
import { Cell, Figure, Row, Table } from "../../kit/Table";

type Line = Schema["ShoppingLine"];

const states = {
  short: { sign: "▲", word: "Short", tint: "text-signal font-semibold" },
  low: { sign: "●", word: "Low", tint: "text-amber" },
  enough: { sign: "", word: "Enough", tint: "text-soft" },
} as const;

/** What everything planned on the bench takes against what is there, what to buy in whole packs, and every change of stock. */
export function Component() {
  const { workshopId = "" } = useParams();
  const queries = useQueryClient();
  const say = useSay();
  const [within, setWithin] = useState(3);
  const [openId, setOpenId] = useState<string | null>(null);
  const list = useQuery({
    queryKey: ["stock", workshopId, within],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      take(
        api.GET("/api/stock/{workshopId}/shopping", {
          params: { path: { workshopId }, query: { within } },
          signal,
        }),
      ),
  });
  const [book, busy] = useWrite("stock");
  const refresh = () => {
    for (const key of ["stock", "materials", "zone", "pots"])
      void queries.invalidateQueries({ queryKey: [key] });
  };
  const error = hindered(list);
  useCommands("Stock", [], { view: true, ready: !!error || !!list.data });
  if (error) return <Trouble error={error} retry={() => void list.refetch()} />;
  if (!list.data) return <p className="p-6 text-soft">Adding up what every plan takes…</p>;
  const open = list.data.lines.find((l) => l.materialId === openId);
  const setOpen = (line: Line) => setOpenId(line.materialId);
  const short = list.data.lines.filter((l) => l.state === "short");
  const rest = list.data.lines.filter((l) => l.state !== "short");
  const buy = async (lines: Line[]) => {
    try {
      await book((headers) =>
        api.POST("/api/stock/{workshopId}/moves", {
          headers,
          params: { path: { workshopId } },
          body: {
            moves: lines.map((l) => ({
              id: crypto.randomUUID(),
              materialId: l.materialId,
              kind: "bought" as const,
              ml: l.packs * l.packMl,
              reason: `${l.packs} ${l.packs === 1 ? "pack" : "packs"}`,
            })),
          },
        }),
      );
      say(lines.length === 1 ? `${lines[0]!.name} is on the shelf.` : "All of it is on the shelf.");
      refresh();
    } catch (error) {
      if (error instanceof Refused) say(error.message, true);
    }
  };
  const buyable = short.filter((l) => l.packs > 0);
  return (
    <div className="h-full overflow-y-auto px-5 pt-3 pb-6">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-1">
        <h1 className="text-lg font-semibold">Stock</h1>
        <p className="pb-0.5 text-xs text-soft">
          What every plan on this bench still takes, less what stands in pots; losses and 10 % spare are in
          (estimates).
        </p>
        <span className="no-print ml-auto flex flex-wrap items-end gap-2">
          <Currency workshopId={workshopId} />
          <Choice
            beside
            label="Alternatives within"
            value={String(within)}
            options={[1, 2, 3, 5, 8].map((n) => ({
              value: String(n),
              text: n === 1 ? "1, nobody sees" : String(n),
            }))}
            onChange={(n) => setWithin(Number(n))}
          />
          <a
            className="inline-flex min-h-[26px] items-center rounded-[3px] border border-line bg-card px-2.5 text-xs hover:border-ink"
            href={`/api/stock/${workshopId}/shopping.csv`}
            download="shopping.csv"
          >
            As CSV
          </a>
          <Button onClick={() => window.print()}>Print</Button>
        </span>
      </div>
      <section aria-labelledby="buy" className="mt-2">
        <div className="flex items-baseline gap-3">
          <h2 id="buy" className="text-base font-semibold">
            To buy
          </h2>
          {short.length > 0 && (
            <span className="text-xs">
              {money(list.data.cost, list.data.currency)} for {buyable.reduce((n, l) => n + l.packs, 0)} packs
              {list.data.unpriced > 0 &&
                `, without ${list.data.unpriced} that ${list.data.unpriced === 1 ? "has" : "have"} no price or pack size`}
            </span>
          )}
          {buyable.length > 1 && (
            <Button
              tone="plain"
              className="no-print ml-auto"
              disabled={busy}
              onClick={() => void buy(buyable)}
            >
              All of it was bought
            </Button>
          )}
        </div>
        {short.length === 0 ? (
          <p className="border-l-[3px] border-line bg-card px-3 py-2">
            Nothing: what is on the shelf lasts for everything planned.
          </p>
        ) : (
          <Lines
            lines={short}
            caption="To buy"
            workshopId={workshopId}
            currency={list.data.currency}
            onOpen={setOpen}
            onBuy={(l) => void buy([l])}
          />
        )}
      </section>
      {rest.length > 0 && (
        <section aria-labelledby="lasts" className="no-print mt-5">
          <h2 id="lasts" className="text-base font-semibold">
            What lasts
          </h2>
          <Lines
            lines={rest}
            caption="What lasts"
            workshopId={workshopId}
            currency={list.data.currency}
            onOpen={setOpen}
          />
        </section>
      )}
      {open && (
        <MoveDialog
          workshopId={workshopId}
          material={open}
          onClose={() => setOpenId(null)}
          onChanged={refresh}
        />
      )}
    </div>
  );
}

function Lines(props: {
  lines: Line[];
  caption: string;
  workshopId: string;
  currency: string;
  onOpen: (line: Line) => void;
  onBuy?: (line: Line) => void;
}) {
  const buying = props.onBuy !== undefined;
  const heads = [
    { text: "Material" },
    { text: "State", hidden: true },
    ...["Needed", "In stock", ...(buying ? ["Missing", "Buy", "Cost"] : []), "Left after"].map((text) => ({
      text,
      figures: true,
    })),
    { text: "What drives it" },
    { text: "Do", hidden: true, className: "no-print" },
  ];
  return (
    <Wide label={props.caption}>
      <Table onCards caption={props.caption} className="mt-1 text-xs" heads={heads}>
        {props.lines.map((l) => {
          const look = states[l.state];
          return (
            <Row
              key={l.materialId}
              data-line={l.name}
              className="align-top"
              head={
                <>
                  <Link className="font-semibold underline" to={`/shelf/${props.workshopId}/${l.materialId}`}>
                    {l.name}
                  </Link>{" "}
                  <span className="text-soft">{l.maker}</span>
                  {l.alternatives.length > 0 && (
                    <span className="block">
                      On the shelf:{" "}
                      {l.alternatives
                        .map((a) => `${a.name} (${differs(a.difference)}; ${ml(a.spareMl)} to spare)`)
                        .join(", ")}
                    </span>
                  )}
                </>
              }
            >
              <Cell className={`whitespace-nowrap ${look.tint}`}>
                <span aria-hidden="true">{look.sign} </span>
                {look.word}
              </Cell>
              <Figure>{ml(l.needMl)}</Figure>
              <Figure>{ml(l.stockMl)}</Figure>
              {buying && (
                <>
                  <Figure>{ml(l.shortMl)}</Figure>
                  <Figure>{l.packs > 0 ? `${l.packs} × ${ml(l.packMl)}` : "no pack size"}</Figure>
                  <Figure>{l.cost === null ? "no price" : money(l.cost, props.currency)}</Figure>
                </>
              )}
              <Figure>{ml(l.leftMl)}</Figure>
              <Cell className="text-soft">
                {Math.round(l.drivenShare * 100)} % {l.drivenBy}
              </Cell>
              <td className="no-print px-2 py-1 text-right whitespace-nowrap">
                {props.onBuy && l.packs > 0 && (
                  <Button tone="plain" aria-label={`Bought: ${l.name}`} onClick={() => props.onBuy!(l)}>
                    Bought
                  </Button>
                )}{" "}
                <Button
                  aria-label={`Moves of ${l.name}`}
                  aria-haspopup="dialog"
                  onClick={() => props.onOpen(l)}
                >
                  Moves…
                </Button>
              </td>
            </Row>
          );
        })}
      </Table>
    </Wide>
  );
}
