// The client's page: what a proof's link opens, and nothing of the shop.
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import "../styles.css";
import { ClientPage } from "./client-page.tsx";

const root = document.getElementById("root");
if (!root) throw new Error("the page has no root");
createRoot(root).render(
  <StrictMode>
    <ClientPage token={decodeURIComponent(location.pathname.split("/")[2] ?? "")} />
  </StrictMode>,
);
