// The head of the shop's pages: where one is, and the ways to the others.
import type { ReactNode } from "react";
import { Link } from "react-router";
import { OutboxNote } from "../outbox/outbox-note.tsx";

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
  return (
    <header className="border-b border-rule bg-sheet px-8 pb-4 pt-6">
      <div className="flex items-end gap-4">
        <div className="flex-1">
          <nav aria-label="Pages" className="flex flex-wrap gap-x-3 whitespace-nowrap text-soft">
            Plain Palette
            {PAGES.filter((page) => page.title !== title).map((page) => (
              <Link key={page.path} to={page.path} className="underline underline-offset-2 hover:text-ink">
                {page.title}
              </Link>
            ))}
          </nav>
          <h1 className="text-2xl font-semibold leading-tight">{title}</h1>
        </div>
        {children}
      </div>
      <OutboxNote className="mt-3" />
    </header>
  );
}
