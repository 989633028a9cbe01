// The proof as the ticket lists it; its page is one of its own, for the client's eyes.
import { STEP_NAMES } from "../../job/step-names.ts";
import type { TicketStep } from "../screen.ts";

export const proofStep: TicketStep = {
  id: "proof",
  title: STEP_NAMES.proof,
  summarise: () => "to look at and show",
};
