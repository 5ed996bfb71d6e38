import "./pair.css";

/**
 * The only page that a device gets before it is taken in: it shows the key that stood behind the hash of the address, or one that is
 * typed, and makes up the secret that the browser keeps from then on.
 */
const field = (id: string) => document.querySelector<HTMLInputElement>(`#${id}`)!;
const [key, name] = [field("key"), field("name")];
const fault = document.querySelector("#fault")!;
const button = document.querySelector<HTMLButtonElement>("#pair button")!;

key.value = decodeURIComponent(location.hash.slice(1));
history.replaceState(null, "", location.pathname);
name.value = /iPhone|Android.*Mobile/.test(navigator.userAgent) ? "Phone" : "Tablet";
(key.value ? name : key).focus();

const secret = Array.from(crypto.getRandomValues(new Uint8Array(32)), (b) =>
  b.toString(16).padStart(2, "0"),
).join("");

async function pair() {
  button.disabled = true;
  fault.textContent = "";
  try {
    const answer = await fetch("/api/pairing", {
      method: "POST",
      headers: { "Content-Type": "application/json", "Idempotency-Key": crypto.randomUUID() },
      body: JSON.stringify({ key: key.value, name: name.value, secret }),
    });
    const said = (await answer.json()) as {
      workshopId?: string;
      detail?: string;
      errors?: { message: string }[];
    };
    if (answer.ok) location.replace(`/bench/${said.workshopId}`);
    else fault.textContent = said.errors?.[0]?.message ?? said.detail ?? "It was refused.";
  } catch {
    fault.textContent = "Nobody answers. Look whether this device is in the same network, and try once more.";
  } finally {
    button.disabled = false;
  }
}

/** What the bench keeps in this browser: a device that was sent away has it still. */
const STORE = "lowfell-bench",
  KEPT = ["events", "aside", "photos"] as const;

async function kept(): Promise<Record<string, Record<string, unknown>[]> | null> {
  if (!(await indexedDB.databases()).some((d) => d.name === STORE)) return null;
  const db = await new Promise<IDBDatabase>((done, fail) => {
    const ask = indexedDB.open(STORE);
    ask.onsuccess = () => done(ask.result);
    ask.onerror = () => fail(ask.error);
  });
  const found: Record<string, Record<string, unknown>[]> = {};
  for (const name of KEPT.filter((n) => db.objectStoreNames.contains(n)))
    found[name] = await new Promise((done, fail) => {
      const ask = db.transaction(name).objectStore(name).getAll();
      ask.onsuccess = () => done(ask.result as Record<string, unknown>[]);
      ask.onerror = () => fail(ask.error);
    });
  db.close();
  return found;
}

const count = (n: number, what: string) => `${n} ${what}${n === 1 ? "" : "s"}`;

async function showKept() {
  const found = await kept();
  const [events, aside, photos] = KEPT.map((n) => found?.[n] ?? []);
  if (events!.length + aside!.length + photos!.length === 0) return;
  document.querySelector<HTMLElement>("#kept")!.hidden = false;
  document.querySelector("#kept-says")!.textContent =
    `${count(events!.length + aside!.length, "event")} and ${count(photos!.length, "photograph")} that have not got to Lowfell.`;
  const list = document.querySelector("#kept-list")!;
  for (const e of [...events!, ...aside!.map((a) => a["event"] as Record<string, unknown>)].slice(-20)) {
    const line = document.createElement("li");
    const at = new Date(String(e["toldAt"])).toLocaleString("en-GB", {
      dateStyle: "medium",
      timeStyle: "short",
    });
    line.textContent = [at, e["kind"], e["note"]].filter(Boolean).join(", ");
    list.append(line);
  }
  document.querySelector("#save")!.addEventListener("click", () => {
    const workshopId = [...events!, ...aside!, ...photos!][0]!["workshopId"];
    const file = {
      lowfell: "bench",
      version: 1,
      workshopId,
      savedAt: new Date().toISOString(),
      events,
      aside,
      photos,
    };
    const link = document.createElement("a");
    link.href = URL.createObjectURL(new Blob([JSON.stringify(file)], { type: "application/json" }));
    link.download = "lowfell bench.json";
    link.click();
  });
}

void showKept();

document.querySelector("form")!.addEventListener("submit", (e) => {
  e.preventDefault();
  void pair();
});
