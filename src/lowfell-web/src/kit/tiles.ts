/** A group of things under one heading. */
export type Group<T> = { name: string; items: readonly T[] };

/** A row of what is drawn: the heading of a group, or as many of its things as fit beside each other. */
export type Row<T> = { heading: string; count: number } | { items: readonly T[]; first: number };

/** Groups as rows of so many things each, in order; `first` counts through all groups. */
export function rowsOf<T>(groups: readonly Group<T>[], columns: number): Row<T>[] {
  const rows: Row<T>[] = [];
  let first = 0;
  for (const group of groups) {
    rows.push({ heading: group.name, count: group.items.length });
    for (let i = 0; i < group.items.length; i += columns) {
      const items = group.items.slice(i, i + columns);
      rows.push({ items, first });
      first += items.length;
    }
  }
  return rows;
}

/** Things by what names their group, in the order groups first come up. */
export function groupsOf<T>(list: readonly T[], nameOf: (item: T) => string): Group<T>[] {
  const by = new Map<string, T[]>();
  for (const item of list) {
    const there = by.get(nameOf(item));
    if (there) there.push(item);
    else by.set(nameOf(item), [item]);
  }
  return [...by].map(([name, items]) => ({ name, items }));
}

/** How many columns of at least so much fit, with a gap between them. */
export const columnsIn = (width: number, least: number, gap: number) =>
  Math.max(1, Math.floor((width + gap) / (least + gap)));
