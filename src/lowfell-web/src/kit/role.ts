/** What this device may do: nothing is said on the machine that Lowfell runs on. */
const said =
  typeof document === "undefined"
    ? ""
    : (document.querySelector<HTMLMetaElement>("meta[name=lowfell-role]")?.content ?? "");

export const role: "" | "look" | "work" = said === "look" || said === "work" ? said : "";
