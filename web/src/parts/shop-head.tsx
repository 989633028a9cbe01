// The head of the shop's pages: where one is, and the ways to the others.
import type { ReactNode } from "react";
import { Link } from "react-router";
import { OutboxNote } from "../outbox/outbox-note.tsx";
import { PageTitle } from "./page-title.tsx";
import { useTitle } from "./use-title.ts";

const PAGES = [
  { path: "/", title: "Job board" },
  { path: "/shelf", title: "Shelf" },
  { path: "/motifs", title: "Motifs" },
  { path: "/typefaces", title: "Typefaces" },
  { path: "/practice", title: "Practice bench" },
  { path: "/settings", title: "Shop settings" },
  { path: "/room", title: "Room" },
] as const;

export function ShopHead({ title, children }: { title: (typeof PAGES)[number]["title"]; children?: ReactNode }) {
  useTitle(title);
  return (
    <header className="border-b border-rule bg-sheet px-8 pb-4 pt-6 narrow:px-4 narrow:pt-3">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <div className="min-w-0 flex-1 narrow:basis-full">
          <nav aria-label="Pages" className="flex flex-wrap gap-x-3 whitespace-nowrap text-soft">
            Plain Palette
            {PAGES.filter((page) => page.title !== title).map((page) => (
              <Link key={page.path} to={page.path} className="underline underline-offset-2 hover:text-ink">
                {page.title}
              </Link>
            ))}
          </nav>
          <PageTitle className="text-2xl leading-tight">{title}</PageTitle>
        </div>
        {children}
      </div>
      <OutboxNote className="mt-3" />
    </header>
  );
}
