// The web application's first line: providers and routes.
import "./styles.css";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import { AGAIN_MS, onTryNow } from "./api/again.ts";
import { isAway } from "./api/requests.ts";
import { fetchAhead } from "./fetch-ahead.ts";
import { startOutbox } from "./outbox/shop-outbox.ts";
import { keepFocus } from "./parts/keep-focus.ts";
import { problemOf } from "./parts/problem.tsx";
import { readJob, router } from "./routes.tsx";

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      // A refusal is said at once.
      retry: (failures, error) => failures < 1 && isAway(problemOf(error)),
      // The server may be on this very machine: it is asked whatever the browser thinks of the network.
      networkMode: "always",
      refetchInterval: ({ state }) => (state.status === "error" && isAway(problemOf(state.error)) ? AGAIN_MS : false),
    },
  },
});
onTryNow(() => void queries.refetchQueries({ type: "active", predicate: ({ state }) => state.status === "error" }));
startOutbox(queries);
fetchAhead(readJob);
keepFocus();
const root = document.getElementById("root");
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </StrictMode>,
  );
