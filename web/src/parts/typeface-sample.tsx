// Words in a typeface, as the browser draws them from the same files that the product sets; fetched once they come into view.
import type { ListedTypeface } from "@plain-palette/contract";
import { useEffect, useRef, useState } from "react";
import { useTypefaceStack } from "../shop/use-typefaces.ts";

interface Props {
  readonly typeface: Pick<ListedTypeface, "id" | "files" | "family">;
  readonly words: string;
  /** px. */
  readonly size: number;
}

export function TypefaceSample({ typeface, words, size }: Props) {
  const line = useRef<HTMLSpanElement>(null);
  const [isSeen, setSeen] = useState(false);
  useEffect(() => {
    if (!line.current) return;
    const watch = new IntersectionObserver(([entry]) => entry?.isIntersecting && setSeen(true), {
      rootMargin: "200px",
    });
    watch.observe(line.current);
    return () => watch.disconnect();
  }, []);
  const stack = useTypefaceStack(typeface, isSeen);
  if (stack === "none") return <span className="block text-xs text-wrong">The browser cannot draw this font.</span>;
  return (
    <span
      ref={line}
      dir="auto"
      aria-hidden="true"
      className={`block truncate ${stack ? "" : "text-transparent"}`}
      style={{ fontFamily: stack ?? "sans-serif", fontSize: size, lineHeight: 1.35 }}
    >
      {words}
    </span>
  );
}
