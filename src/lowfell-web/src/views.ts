import type { ComponentType } from "react";

/** The places of the bar, in the order of the work; each with a second row of its views. */
export const places = [
  { id: "plan", words: "Plan" },
  { id: "materials", words: "Materials" },
  { id: "time", words: "Time" },
  { id: "bench", words: "Bench" },
  { id: "pieces", words: "Pieces" },
  { id: "log", words: "Log" },
] as const;

export type Home = (typeof places)[number]["id"] | "set menu" | "workshop menu";

/** What a view is about, and so what its address names. */
export type Where = { setId?: string; workshopId?: string };

export type View = {
  id: string;
  words: string;
  /** One line on what it is for, in the list of keys and in the finder. */
  says: string;
  home: Home;
  /** Its address; `:setId` and `:workshopId` are filled in, what ends in `?` is left out. */
  path: string;
  key?: string;
  /** It stands in its row only while there is something in it; the finder always has it. */
  when?: "something";
  load: () => Promise<{ Component: ComponentType }>;
};

/**
 * Every view there is. Bar, second row, menus, keys, finder, titles and routes are made from this list: a new view is one entry here
 * and one folder under features.
 */
export const views: readonly View[] = [
  {
    id: "layers",
    words: "Layers",
    says: "the layers of a zone, their colours and remarks",
    home: "plan",
    path: "plan/:setId/:zoneId?",
    key: "p",
    load: () => import("./features/plan/PlanView"),
  },
  {
    id: "remarks",
    words: "Remarks",
    says: "what to do: remarks over the whole set",
    home: "plan",
    path: "remarks/:setId",
    key: "w",
    load: () => import("./features/remarks/RemarksView"),
  },
  {
    id: "table",
    words: "From the table",
    says: "a design as the players see it",
    home: "plan",
    path: "table/:setId/:designId?",
    key: "t",
    load: () => import("./features/table/TableView"),
  },
  {
    id: "shelf",
    words: "Shelf",
    says: "find a material on the shelf",
    home: "materials",
    path: "shelf/:workshopId/:materialId?",
    key: "/",
    load: () => import("./features/shelf/ShelfView"),
  },
  {
    id: "stock",
    words: "Stock",
    says: "stock, and what to buy",
    home: "materials",
    path: "stock/:workshopId",
    key: "k",
    load: () => import("./features/stock/StockView"),
  },
  {
    id: "pots",
    words: "Pots",
    says: "jars: mixes and pots",
    home: "materials",
    path: "pots/:setId",
    key: "j",
    load: () => import("./features/pots/PotsView"),
  },
  {
    id: "sessions",
    words: "Sessions",
    says: "what to do on which evening, and when it will be finished",
    home: "time",
    path: "sessions/:workshopId",
    key: "-",
    load: () => import("./features/sessions/SessionsView"),
  },
  {
    id: "estimates",
    words: "Estimates",
    says: "minutes of every layer, and what each is worth from the table",
    home: "time",
    path: "estimates/:setId/:zoneId?",
    key: "=",
    load: () => import("./features/estimates/EstimatesView"),
  },
  {
    id: "bench",
    words: "Bench",
    says: "what to do now, what is drying, what is done",
    home: "bench",
    path: "bench/:workshopId",
    key: "1",
    load: () => import("./features/bench/BenchView"),
  },
  {
    id: "cores",
    words: "Cores",
    says: "what is really on every piece, side by side",
    home: "pieces",
    path: "pieces/:setId/:zoneId?",
    key: "2",
    load: () => import("./features/pieces/CoresView"),
  },
  {
    id: "log",
    words: "Log",
    says: "what happened, in words and pictures, and what it teaches",
    home: "log",
    path: "log/:setId",
    key: "3",
    load: () => import("./features/log/LogView"),
  },
  {
    id: "unfit",
    words: "What did not fit",
    says: "what was told at the bench and could not be taken in as it was",
    home: "log",
    path: "unfit/:workshopId",
    when: "something",
    load: () => import("./features/unfit/UnfitView"),
  },
  {
    id: "record",
    words: "Record",
    says: "the set as it was really done, to print and keep",
    home: "log",
    path: "record/:setId",
    load: () => import("./features/record/RecordView"),
  },
  {
    id: "sets",
    words: "All sets",
    says: "all sets of the workshop",
    home: "set menu",
    path: "sets/:workshopId",
    key: "q",
    load: () => import("./features/sets/SetsView"),
  },
  {
    id: "set",
    words: "This set",
    says: "facts, designs, pieces and zones of this set",
    home: "set menu",
    path: "set/:setId/:designId?",
    key: "e",
    load: () => import("./features/set/SetView"),
  },
  {
    id: "treatments",
    words: "Treatments",
    says: "every treatment, where it is used, and its versions",
    home: "plan",
    path: "treatments/:workshopId/:treatmentId?",
    key: "y",
    load: () => import("./features/treatments/TreatmentsView"),
  },
  {
    id: "trials",
    words: "Trials",
    says: "what to find out on a tile before the set",
    home: "plan",
    path: "trials/:setId/:trialId?",
    load: () => import("./features/trials/TrialsView"),
  },
  {
    id: "variation",
    words: "Variation",
    says: "how pieces differ and belong together: what goes where on which",
    home: "plan",
    path: "variation/:setId/:treatmentId?/:layerId?",
    load: () => import("./features/variation/VariationView"),
  },
  {
    id: "bases",
    words: "Bases",
    says: "tops of bases laid out: textures, rocks, tufts, and what stands where",
    home: "plan",
    path: "bases/:setId/:designId?",
    load: () => import("./features/bases/BasesView"),
  },
  {
    id: "start",
    words: "New set",
    says: "a first set in five steps, or one more",
    home: "set menu",
    path: "start/:workshopId",
    load: () => import("./features/start/StartView"),
  },
  {
    id: "house",
    words: "House rules",
    says: "how this house does what painters differ about",
    home: "workshop menu",
    path: "house/:workshopId",
    key: "h",
    load: () => import("./features/house/HouseRulesView"),
  },
  {
    id: "devices",
    words: "Other devices",
    says: "the bench on a phone or tablet, and instruments",
    home: "workshop menu",
    path: "devices/:workshopId",
    load: () => import("./features/devices/DevicesView"),
  },
];

/** The address of a view; null when what it is about is not known. */
export function addressOf(view: View, where: Where): string | null {
  const parts: string[] = [];
  for (const part of view.path.split("/")) {
    if (part.endsWith("?")) continue;
    if (!part.startsWith(":")) parts.push(part);
    else {
      const id = where[part.slice(1) as keyof Where];
      if (!id) return null;
      parts.push(id);
    }
  }
  return `/${parts.join("/")}`;
}

/** The view at an address. */
export const viewAt = (pathname: string) => {
  const first = pathname.split("/")[1];
  return views.find((v) => v.path.split("/")[0] === first);
};
