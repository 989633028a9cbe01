// A board as it is in a busy week: thirty jobs, each somewhere between the client's picture and the last film.
import { type Job, jobSchema, OWN_HEADER, type ShopProof, seenOf, shopProofSchema } from "@plain-palette/contract";

/** What is ordered, for whom, due in so many days, and how far it is. */
const ORDERS = [
  ["Deck jackets, sleeve", "Tern Island Ferry", 3, "yes"],
  ["Mugs and aprons", "Hearth & Rye", 6, "waits"],
  ["Finish line bibs", "Saltmarsh Rowing Club", 1, "answered"],
  ["Kite tails", "Kite Sunday committee", 9, "making"],
  ["Watch caps", "Lantern Quay Pilots", 4, "changed"],
  ["Harbour day totes", "Tern Island Ferry", 12, "waits"],
  ["Baker's caps", "Hearth & Rye", -1, "answered"],
  ["Junior squad shirts", "Saltmarsh Rowing Club", 15, "making"],
  ["Marshal vests", "Kite Sunday committee", 8, "yes"],
  ["Launch crew fleeces", "Lantern Quay Pilots", 20, "waits"],
  ["Ticket office polos", "Tern Island Ferry", 2, "yes"],
  ["Market stall banner", "Hearth & Rye", 5, "making"],
  ["Boathouse sign", "Saltmarsh Rowing Club", 30, "waits"],
  ["Workshop aprons", "Kite Sunday committee", 11, "answered"],
  ["Cadet badges", "Lantern Quay Pilots", 7, "waits"],
  ["Summer crew caps", "Tern Island Ferry", 25, "making"],
  ["Delivery bags", "Hearth & Rye", 14, "yes"],
  ["Regatta backs", "Saltmarsh Rowing Club", 10, "changed"],
  ["Wind socks", "Kite Sunday committee", 18, "making"],
  ["Signal flags", "Lantern Quay Pilots", 21, "waits"],
  ["Galley aprons", "Tern Island Ferry", 16, "making"],
  ["Sourdough club shirts", "Hearth & Rye", 13, "waits"],
  ["Cox's jackets", "Saltmarsh Rowing Club", 22, "yes"],
  ["Flyers' sweatshirts", "Kite Sunday committee", 28, "making"],
  ["Winter hats", "Lantern Quay Pilots", 35, "waits"],
] as const;
const DAY_MS = 86_400_000;

/** Adds them as copies of the jobs that are there, with proofs sent and clients' answers. */
export async function fillBoard(url: string, clientUrl: string, jobs: readonly Job[], now: Date): Promise<void> {
  const clients = [...new Set(jobs.map(({ client }) => client))];
  for (const [title, client, days, state] of ORDERS) {
    const from = jobs.find((job) => job.client === client) ?? jobs[clients.length % jobs.length];
    if (!from) throw new Error("there is no job to copy");
    const copy = jobSchema.parse(await post(`${url}/api/jobs/${from.id}/copy`, "POST", undefined));
    const dueDay = new Date(now.getTime() + days * DAY_MS).toISOString().slice(0, 10);
    const change = { title, client, dueDay, clientMail: "orders@client.example", step: "shapes" } as const;
    await post(`${url}/api/jobs/${copy.id}`, "PATCH", seenOf(copy, change));
    if (state === "making") continue;
    const sent = shopProofSchema.parse(await post(`${url}/api/jobs/${copy.id}/proofs`, "POST", { recipeVersion: 1 }));
    if (state === "waits") continue;
    await answer(clientUrl, sent, state, now);
    if (state !== "changed") continue;
    const recipe = { ...copy.recipe, artwork: { ...copy.recipe.artwork, garment: "#5b2333" } };
    await post(`${url}/api/jobs/${copy.id}/recipes`, "POST", { basedOn: 1, recipe });
  }
}

async function answer(clientUrl: string, { link }: ShopProof, state: string, now: Date): Promise<void> {
  const door = `${clientUrl}/api/proof/${link.split("/").at(-1)}`;
  if (state === "answered")
    await post(`${door}/notes`, "POST", { name: "Ada Wren", text: "Is the pale blue meant?", at: { x: 60, y: 70 } });
  else await post(`${door}/yes`, "POST", { name: "Ada Wren", day: now.toISOString().slice(0, 10) });
}

async function post(address: string, method: string, body: unknown): Promise<unknown> {
  const headers = { "Content-Type": "application/json", [OWN_HEADER]: "demo" };
  const response = await fetch(address, {
    method,
    headers,
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  if (!response.ok) throw new Error(`${method} ${address}: ${response.status} ${await response.text()}`);
  return response.json();
}
