import type { ComponentProps, ReactNode } from "react";

type Head = {
  text: string;
  /** A column of figures: they end below each other. */
  figures?: boolean;
  /** Said, not shown: what stands below speaks for itself. */
  hidden?: boolean;
  className?: string;
};

/** A table that is read: what it holds is always said, its columns and rows have heads. */
export function Table({
  caption,
  captionShown,
  heads,
  onCards,
  className = "text-xs",
  children,
  ...rest
}: ComponentProps<"table"> & {
  caption: string;
  captionShown?: boolean;
  heads?: readonly Head[];
  /** Its rows lie on cards, and keep away from their edges. */
  onCards?: boolean;
}) {
  const cards = onCards
    ? "[&_td]:px-2 [&_th]:px-2 [&_tbody>tr]:bg-card"
    : "[&_tr>:first-child]:pl-0 [&_tr>:last-child]:pr-0";
  return (
    <table className={`relative w-full ${cards} ${className}`} {...rest}>
      <caption className={captionShown ? "text-left text-sm font-semibold" : "sr-only"}>{caption}</caption>
      {heads && (
        <thead>
          <tr className="text-soft">
            {heads.map((h) => (
              <th
                key={h.text}
                scope="col"
                className={`px-1 py-1 font-normal ${h.figures ? "text-right whitespace-nowrap print:whitespace-normal" : "text-left"} ${h.className ?? ""}`}
              >
                {h.hidden ? <span className="sr-only">{h.text}</span> : h.text}
              </th>
            ))}
          </tr>
        </thead>
      )}
      <tbody>{children}</tbody>
    </table>
  );
}

/** One thing, under its head. */
export function Row({
  head,
  headClass = "",
  className = "",
  children,
  ...rest
}: ComponentProps<"tr"> & { head: ReactNode; headClass?: string }) {
  return (
    <tr className={`border-t border-line ${className}`} {...rest}>
      <th scope="row" className={`px-1 py-1 text-left font-normal ${headClass}`}>
        {head}
      </th>
      {children}
    </tr>
  );
}

/** Words. */
export const Cell = ({ className = "", ...rest }: ComponentProps<"td">) => (
  <td className={`px-1 py-1 ${className}`} {...rest} />
);

/** A figure with its unit. */
export const Figure = ({ className = "", ...rest }: ComponentProps<"td">) => (
  <td className={`px-1 py-1 text-right whitespace-nowrap ${className}`} {...rest} />
);
