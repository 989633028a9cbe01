// One shop for each of Playwright's workers: its own server and database, so that no test waits for another's settings.

/** Two: what two cores hold. */
export const SHOPS = 2;

// Chosen once, in the runner; its workers and the servers inherit it.
process.env.E2E_PORT ??= String(20_000 + Math.floor(Math.random() * 20_000));

/** @param index 0 to SHOPS - 1. */
export const doorPort = (index: number) => shopPort(index) + SHOPS;

/** Of the shop whose server dies and comes back. */
export const mortalPort = () => shopPort(2 * SHOPS);

/** @param index 0 to SHOPS - 1. */
export const shopPort = (index: number) => Number(process.env.E2E_PORT) + index;

/** @param index 0 to SHOPS - 1. */
export const shopUrl = (index: number) => `http://127.0.0.1:${shopPort(index)}`;

/** The shops' indices. */
export const allShops = () => [...Array(SHOPS).keys()];
