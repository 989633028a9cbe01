// Addresses and their screens. All but the board load when first needed.
import { createBrowserRouter } from "react-router";
import { Board } from "./board/board.tsx";
import { PageProblem } from "./parts/page-problem.tsx";

export const router = createBrowserRouter([
  { path: "/", element: <Board />, errorElement: <PageProblem /> },
  {
    path: "/shelf",
    errorElement: <PageProblem />,
    lazy: async () => ({ Component: (await import("./shelf/shelf.tsx")).Shelf }),
  },
  {
    path: "/motifs",
    errorElement: <PageProblem />,
    lazy: async () => ({ Component: (await import("./motifs/motifs.tsx")).Motifs }),
  },
  {
    path: "/typefaces",
    errorElement: <PageProblem />,
    lazy: async () => ({ Component: (await import("./typefaces/typefaces.tsx")).Typefaces }),
  },
  {
    path: "/settings",
    errorElement: <PageProblem />,
    lazy: async () => ({ Component: (await import("./settings/settings.tsx")).Settings }),
  },
  {
    path: "/room",
    errorElement: <PageProblem />,
    lazy: async () => ({ Component: (await import("./room/room.tsx")).RoomPage }),
  },
  {
    path: "/practice",
    errorElement: <PageProblem />,
    lazy: async () => ({ Component: (await import("./practice/practice.tsx")).Practice }),
  },
  {
    path: "/jobs/:id",
    errorElement: <PageProblem />,
    lazy: async () => ({ Component: (await import("./job/open-job.tsx")).OpenJob }),
    children: [
      { path: "proof", lazy: async () => ({ Component: (await import("./proof/proof.tsx")).ProofPage }) },
      { path: ":step", lazy: async () => ({ Component: (await import("./workbench/workbench.tsx")).Workbench }) },
    ],
  },
]);
