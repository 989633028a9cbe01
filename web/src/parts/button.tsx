// Buttons: plain, and the one thing to do next.
import type { ComponentProps } from "react";

const LOOKS = {
  plain: "border border-rule bg-card text-ink hover:border-ink",
  next: "border border-next bg-next text-white hover:brightness-110",
  quiet: "border border-transparent text-ink hover:border-rule",
};

/** One that can do nothing just now stays where it is for the keyboard: focus is not lost with what it was for. */
export function Button({
  look = "plain",
  className = "",
  disabled = false,
  onClick,
  ...rest
}: ComponentProps<"button"> & { look?: keyof typeof LOOKS }) {
  return (
    <button
      type="button"
      aria-disabled={disabled || undefined}
      onClick={disabled ? undefined : onClick}
      className={`inline-flex shrink-0 items-center justify-center gap-1.5 whitespace-nowrap rounded-[3px] px-2.5 py-1 text-[13px] leading-5 aria-disabled:cursor-default aria-disabled:opacity-45 ${LOOKS[look]} ${className}`}
      {...rest}
    />
  );
}
