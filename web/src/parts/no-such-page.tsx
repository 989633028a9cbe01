// An address that leads nowhere.
import { useLocation } from "react-router";
import { BackToBoard } from "./back-to-board.tsx";
import { PageTitle } from "./page-title.tsx";
import { useTitle } from "./use-title.ts";

export function NoSuchPage() {
  const { pathname } = useLocation();
  useTitle("No such page");
  return (
    <main id="work" tabIndex={-1} className="mx-auto grid max-w-xl gap-3 px-6 pt-24">
      <PageTitle className="text-2xl">There is no such page</PageTitle>
      <p className="[overflow-wrap:anywhere]">Nothing is at {pathname}.</p>
      <BackToBoard />
    </main>
  );
}
