// Where one is: the one heading of a page. Whoever comes from another page begins to read here.
import { type ReactNode, useLayoutEffect, useRef } from "react";
import { useLocation } from "react-router";

/** What opens a page that nobody came to from another one has this key (React Router). */
const FIRST = "default";

export function PageTitle({ className = "", children }: { className?: string; children: ReactNode }) {
  const heading = useRef<HTMLHeadingElement>(null);
  const isFirst = useLocation().key === FIRST;
  // What was pressed to come here is gone with its page.
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when it appears
  useLayoutEffect(() => {
    if (!isFirst && document.activeElement === document.body) heading.current?.focus();
  }, []);
  return (
    <h1 ref={heading} tabIndex={-1} className={`font-semibold ${className}`}>
      {children}
    </h1>
  );
}
