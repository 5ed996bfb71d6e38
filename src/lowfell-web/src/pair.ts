import "./pair.css";

/**
 * The only page that a device gets before it is taken in: it shows the key that stood behind the hash of the address, or one that is
 * typed, and makes up the secret that the browser keeps from then on.
 */
const field = (id: string) => document.querySelector<HTMLInputElement>(`#${id}`)!;
const [key, name] = [field("key"), field("name")];
const fault = document.querySelector("#fault")!;
const button = document.querySelector("button")!;

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

document.querySelector("form")!.addEventListener("submit", (e) => {
  e.preventDefault();
  void pair();
});
