// Addresses and their screens. The workbench and the proof load when first needed.
import { createBrowserRouter } from "react-router";
import { Board } from "./board/board.tsx";
import { PageProblem } from "./parts/problem.tsx";

export const router = createBrowserRouter([
  { path: "/", element: <Board />, errorElement: <PageProblem /> },
  {
    path: "/jobs/:id/proof",
    errorElement: <PageProblem />,
    lazy: async () => ({ Component: (await import("./proof/proof.tsx")).Proof }),
  },
  {
    path: "/jobs/:id/:step",
    errorElement: <PageProblem />,
    lazy: async () => ({ Component: (await import("./workbench/workbench.tsx")).Workbench }),
  },
]);
