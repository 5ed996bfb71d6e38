import type { Schema } from "../api/client";

/** A place on a silhouette that a zone is drawn in; words of the zone's name that belong there. */
export type Slot = { path: string; words: RegExp };

// Drawn in a box of 640 by 330, back to front.
const scenes: Record<Schema["Silhouette"], Slot[]> = {
  wall: [
    { path: "M548 96L618 70V254L548 282Z", words: /back|rear|inside/i },
    { path: "M22 96H548V236H22Z", words: /brick|face|front|wall|stone|field/i },
    { path: "M22 236H548V282H22Z", words: /tide|band|foot|lower|base/i },
    { path: "M10 70H560L630 44H84ZM10 70H560V96H10Z", words: /cop|top|course|crown|cap/i },
    {
      path: "M270 150a34 34 0 1068 0a34 34 0 10-68 0M282 150a22 22 0 1044 0a22 22 0 10-44 0",

      words: /ring|iron|metal|fitting|moor/i,
    },
  ],
  corner: [
    {
      path: "M300 78L620 40V70L300 112ZM20 44L300 78V112L20 74Z",
      words: /cop|top|course|crown|cap/i,
    },
    { path: "M24 74L300 112V250L24 196Z", words: /brick|face|front|wall|stone|field/i },
    { path: "M300 112L616 70V204L300 250Z", words: /back|rear|inside/i },
    { path: "M24 196L300 250V292L24 234Z", words: /tide|band|foot|lower|base/i },
    {
      path: "M140 150a28 28 0 1056 0a28 28 0 10-56 0M150 150a18 18 0 1036 0a18 18 0 10-36 0",

      words: /ring|iron|metal|fitting|moor/i,
    },
  ],
  house: [
    { path: "M70 150H570V306H70Z", words: /wall|render|brick|front/i },
    { path: "M40 156L150 40H490L600 156Z", words: /roof|slate|tile|thatch/i },
    {
      path: "M70 150H570V160H70ZM70 298H570V306H70ZM64 150H74V306H64ZM566 150H576V306H566Z",
      words: /edge|cut/i,
    },
    {
      path: "M70 220H570V232H70ZM196 160H210V306H196ZM430 160H444V306H430Z",

      words: /timber|wood|beam|frame/i,
    },
    { path: "M282 206H352V306H282Z", words: /door/i },
    {
      path: "M100 178H176V214H100ZM464 178H540V214H464ZM100 246H176V282H100ZM464 246H540V282H464Z",
      words: /glass|window|pane/i,
    },
  ],
  cottage: [
    { path: "M110 170H530V306H110Z", words: /wall|render|brick|front/i },
    {
      path: "M76 178L170 62H470L564 178ZM430 62V26H470V62Z",
      words: /roof|slate|tile|thatch/i,
    },
    {
      path: "M110 170H530V178H110ZM110 299H530V306H110ZM104 170H114V306H104ZM526 170H536V306H526Z",
      words: /edge|cut/i,
    },
    {
      path: "M110 236H530V246H110ZM236 178H248V306H236ZM394 178H406V306H394Z",

      words: /timber|wood|beam|frame/i,
    },
    { path: "M290 222H350V306H290Z", words: /door/i },
    {
      path: "M142 194H208V226H142ZM432 194H498V226H432ZM142 258H208V288H142ZM432 258H498V288H432Z",
      words: /glass|window|pane/i,
    },
  ],
  jetty: [
    {
      path: "M20 120H620L596 84H60ZM20 120H620V146H20ZM70 146H96V312H70ZM226 146H252V312H226ZM388 146H414V312H388ZM544 146H570V312H544Z",

      words: /timber|wood|deck|plank|face/i,
    },
    {
      path: "M96 210L226 262V274L96 222ZM414 210L544 262V274L414 222ZM62 60H104V84H62ZM536 60H578V84H536Z",

      words: /iron|metal|brace/i,
    },
    {
      path: "M83 72Q200 128 319 76Q440 128 557 72V80Q440 138 319 86Q200 138 83 80Z",

      words: /rope|line/i,
    },
  ],
  boat: [
    {
      path: "M40 190H560L600 160L580 244H80ZM150 172V84H300V172Z",
      words: /hull|body|side|turret/i,
    },
    { path: "M56 190H560L600 160H120Z", words: /deck|floor/i },
    {
      path: "M66 244H586Q610 276 586 308H66Q42 276 66 244Z",
      words: /track|wheel|gear|run/i,
    },
    {
      path: "M380 176L470 60L600 104L596 116L478 80L400 176ZM590 104H626L618 146H584Z",
      words: /arm|bucket|crane|gun|boom/i,
    },
    { path: "M168 100H220V136H168ZM232 100H284V136H232Z", words: /glass|window|cab/i },
    { path: "M60 206H556V222H60Z", words: /stripe|hazard|marking|band/i },
  ],
  base: [
    { path: "M70 210a250 74 0 00500 0v34a250 74 0 01-500 0z", words: /rim|edge/i },
    {
      path: "M70 210a250 74 0 10500 0a250 74 0 10-500 0",
      words: /mud|ground|earth|soil|sand/i,
    },
    {
      path: "M120 204Q180 150 330 148Q470 150 500 190Q430 232 330 226Q240 262 160 240Z",
      words: /crust|salt|crackle|snow|top/i,
    },
    {
      path: "M428 200L420 70L436 196L452 50L450 198L474 84L462 204L492 110L474 214Z",
      words: /reed|grass|tuft|plant|bush/i,
    },
  ],
};

/** Each zone in the slot its name speaks of, the rest in what is left, in order; zones without a slot get none. */
export function place<Z extends { name: string }>(silhouette: Schema["Silhouette"], zones: readonly Z[]) {
  const slots = scenes[silhouette];
  const taken = new Map<Slot, Z>();
  for (const zone of zones) {
    const slot = slots.find((s) => !taken.has(s) && s.words.test(zone.name));
    if (slot) taken.set(slot, zone);
  }
  const homeless = zones.filter((z) => ![...taken.values()].includes(z));
  if (taken.size === 0)
    for (const slot of slots) {
      const zone = homeless.shift();
      if (zone) taken.set(slot, zone);
    }
  return {
    drawn: slots.flatMap((slot) => (taken.has(slot) ? [{ slot, zone: taken.get(slot)! }] : [])),
    bare: slots.filter((slot) => !taken.has(slot)),
    homeless,
  };
}

/** How many px of the sketch a mm of the model is: by the zone that is drawn largest, as far as its outline is made of straight lines. */
export function pxPerMm(drawn: readonly { slot: Slot; zone: { areaCm2: number } }[]): number {
  const all = drawn
    .map((d) => ({ px2: areaOf(d.slot.path), mm2: d.zone.areaCm2 * 100 }))
    .filter((d) => d.px2 > 0)
    .sort((a, b) => b.px2 - a.px2);
  return all[0] ? Math.sqrt(all[0].px2 / all[0].mm2) : 1;
}

/** Area of what straight lines enclose, px²; curves are taken as the chords between their ends. */
export function areaOf(path: string): number {
  let [sum, x, y, x0, y0] = [0, 0, 0, 0, 0];
  const to = (nx: number, ny: number) => {
    sum += x * ny - nx * y;
    [x, y] = [nx, ny];
  };
  let whole = 0;
  const close = () => {
    to(x0, y0);
    whole += Math.abs(sum) / 2;
    sum = 0;
  };
  for (const [, command, list] of path.matchAll(/([MLHVQAZaz])([^MLHVQAZaz]*)/g)) {
    const n = (list!.match(/-?\d+(?:\.\d+)?/g) ?? []).map(Number);
    if (command === "M") {
      [x0, y0, x, y] = [n[0]!, n[1]!, n[0]!, n[1]!];
      for (let i = 2; i < n.length; i += 2) to(n[i]!, n[i + 1]!);
    } else if (command === "L") for (let i = 0; i < n.length; i += 2) to(n[i]!, n[i + 1]!);
    else if (command === "H") to(n[0]!, y);
    else if (command === "V") to(x, n[0]!);
    else if (command === "Q") for (let i = 0; i < n.length; i += 4) to(n[i + 2]!, n[i + 3]!);
    else if (command === "a") whole += (Math.PI * n[0]! * n[1]!) / 2;
    else if (command?.toUpperCase() === "Z") close();
  }
  return whole;
}
