/** The key that does the same as the button it stands on. */
export function Key({ children }: { children: string }) {
  return (
    <kbd aria-hidden="true" className="ml-1 rounded-[2px] border border-current px-1 text-xs opacity-75">
      {children}
    </kbd>
  );
}
