// Addresses and their screens. All but the board load when first needed.
import type { ComponentType } from "react";
import { createBrowserRouter, Navigate, type RouteObject } from "react-router";
import { Board } from "./board/board.tsx";
import { keepSpare } from "./compute/spare-worker.ts";
import { Frame } from "./frame/frame.tsx";
import { NoSuchPage } from "./parts/no-such-page.tsx";
import { PageProblem } from "./parts/page-problem.tsx";

/** A screen whose code is fetched when it is opened; without the last two, nothing would be seen where that fails. */
function page(path: string, load: () => Promise<ComponentType>, children: RouteObject[] = []): RouteObject {
  return {
    ...{ path, children, lazy: async () => ({ Component: await load() }) },
    errorElement: <PageProblem />,
    hydrateFallbackElement: (
      <p role="status" className="p-8">
        Opening ...
      </p>
    ),
  };
}

const readWorkbench = () => import("./workbench/workbench.tsx");
const readOpenJob = () => {
  // It starts while the job's own code is read.
  keepSpare();
  return import("./job/open-job.tsx");
};

/** Reads all that a job is opened with, so that it opens at once. */
export const readJob = () => Promise.all([readOpenJob(), readWorkbench()]);

export const router = createBrowserRouter([
  {
    element: <Frame />,
    children: [
      { path: "/", element: <Board />, errorElement: <PageProblem /> },
      page("/shelf", async () => (await import("./shelf/shelf.tsx")).Shelf),
      page("/motifs", async () => (await import("./motifs/motifs.tsx")).Motifs),
      page("/typefaces", async () => (await import("./typefaces/typefaces.tsx")).Typefaces),
      page("/settings", async () => (await import("./settings/settings.tsx")).Settings),
      page("/room", async () => (await import("./room/room.tsx")).RoomPage),
      page("/practice", async () => (await import("./practice/practice.tsx")).Practice),
      page("/jobs/:id", async () => (await readOpenJob()).OpenJob, [
        { index: true, element: <Navigate to="artwork" replace /> },
        page("proof", async () => (await import("./proof/proof.tsx")).ProofPage),
        page(":step", async () => (await readWorkbench()).Workbench),
      ]),
      { path: "*", element: <NoSuchPage /> },
    ],
  },
]);
