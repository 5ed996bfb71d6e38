/** True while the person is typing into something, so that letters are letters. */
export function typing(e: KeyboardEvent): boolean {
  const at = e.target as HTMLElement | null;
  return !!at?.closest("input, textarea, select, [contenteditable], [role=dialog], [role=menu]");
}
