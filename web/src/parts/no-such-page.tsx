// An address that leads nowhere.
import { Link, useLocation } from "react-router";
import { PageTitle } from "./page-title.tsx";
import { useTitle } from "./use-title.ts";

export function NoSuchPage() {
  const { pathname } = useLocation();
  useTitle("No such page");
  return (
    <main id="work" tabIndex={-1} className="mx-auto grid max-w-xl gap-3 px-6 pt-24">
      <PageTitle className="text-2xl">There is no such page</PageTitle>
      <p className="[overflow-wrap:anywhere]">Nothing is at {pathname}.</p>
      <p>
        <Link to="/" className="underline">
          To the job board
        </Link>
      </p>
    </main>
  );
}
