/** Why something was not done, where no field is meant. */
export function Refusal({ says }: { says: string }) {
  return says ? (
    <p role="alert" className="mt-2 border-l-[3px] border-signal bg-signal-wash px-3 py-2 text-xs">
      {says}
    </p>
  ) : null;
}
