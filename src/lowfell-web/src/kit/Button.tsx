import type { ButtonHTMLAttributes } from "react";

type Tone = "plain" | "go" | "quiet";

const tones: Record<Tone, string> = {
  plain: "border-ink bg-card text-ink hover:bg-paper",
  go: "border-tide bg-tide text-on-tide hover:opacity-90",
  quiet: "border-line bg-card text-ink hover:border-ink",
};

export function Button({
  tone = "quiet",
  className = "",
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { tone?: Tone }) {
  return (
    <button
      type="button"
      className={`min-h-[26px] rounded-[3px] border px-2.5 py-[3px] text-xs leading-tight whitespace-nowrap disabled:opacity-45 ${tones[tone]} ${className}`}
      {...rest}
    />
  );
}

/** A square button with a drawn sign; always named for those who cannot see it. */
export function IconButton({
  name,
  className = "",
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { name: string }) {
  return (
    <button
      type="button"
      aria-label={name}
      data-tip={name}
      className={`inline-flex size-[26px] items-center justify-center rounded-[3px] border border-transparent text-ink hover:border-line disabled:opacity-40 ${className}`}
      {...rest}
    />
  );
}
