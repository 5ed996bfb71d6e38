/** Has the browser keep the page for when neither network nor server is there; once the bench was opened, it opens without them. */
export function keepPage() {
  if (!("serviceWorker" in navigator)) return;
  // Refused where the browser keeps nothing: then the bench needs its server to be opened.
  navigator.serviceWorker.register("/sw.js").catch(() => undefined);
}
