import { DropdownMenu } from "radix-ui";

export type MenuEntry = { text: string; key?: string; run: () => void };

/** A button that opens a list of things to do or to go to. */
export function Menu(props: {
  label: string;
  says: string;
  end?: boolean;
  groups: { name?: string; entries: MenuEntry[] }[];
}) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        data-menu={props.label}
        className="max-w-[220px] min-w-0 truncate rounded-[3px] px-2 py-1.5 text-left text-soft hover:bg-aside xl:max-w-[340px]"
      >
        {props.says}
        <span aria-hidden="true"> ▾</span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Content
        align={props.end ? "end" : "start"}
        collisionPadding={8}
        className="z-30 max-h-[var(--radix-dropdown-menu-content-available-height)] min-w-56 overflow-y-auto rounded-[4px] border border-line bg-card p-1 text-ink shadow-lg"
      >
        {props.groups.map((group, i) => (
          <DropdownMenu.Group key={group.name ?? i}>
            {i > 0 && <DropdownMenu.Separator className="my-1 h-px bg-hair" />}
            {group.name && (
              <DropdownMenu.Label className="px-3 pt-2 pb-1 text-xs text-soft">
                {group.name}
              </DropdownMenu.Label>
            )}
            {group.entries.map((entry) => (
              <DropdownMenu.Item
                key={entry.text}
                className="flex w-full cursor-default items-baseline gap-4 rounded-[2px] px-3 py-1.5 text-sm outline-none data-[highlighted]:bg-tide data-[highlighted]:text-on-tide"
                onSelect={entry.run}
              >
                {entry.text}
                {entry.key && <kbd className="ml-auto text-xs opacity-80">{entry.key}</kbd>}
              </DropdownMenu.Item>
            ))}
          </DropdownMenu.Group>
        ))}
      </DropdownMenu.Content>
    </DropdownMenu.Root>
  );
}
