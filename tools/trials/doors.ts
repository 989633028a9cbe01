// Every route, with foreign names, pages, methods, types, ids and bodies: nothing changes, and no answer is a 5xx.
import { request } from "node:http";
import { OWN_HEADER } from "@plain-palette/contract";
import { createConnection } from "mysql2/promise";
import { makeJobs } from "./people.ts";
import { shopRoutes } from "./routes.ts";
import { startSupervised } from "./supervised.ts";

const METHODS = ["GET", "HEAD", "POST", "PUT", "PATCH", "DELETE", "OPTIONS", "TRACE"];
const IDS = ["JOB", "x", "%00", "%C3%B6", "%E0%A4%A", "..%2f..", "' OR 1=1 --".replaceAll(" ", "%20"), "9".repeat(300)];
const TYPES = [
  "application/json",
  "text/plain",
  "multipart/form-data; boundary=x",
  "application/x-www-form-urlencoded",
  "application/octet-stream",
  "image/webp",
];
const BODIES = [
  "",
  "{}",
  "[]",
  "null",
  "{",
  '{"version":1}',
  "\u0000\u0001",
  '{"__proto__":{"a":1}}',
  `{"title":"${"x".repeat(2000)}"}`,
];

interface Asked {
  readonly method: string;
  readonly path: string;
  readonly headers: Record<string, string>;
  readonly body: string;
}

/** `share` 0..1: of all combinations so many. Prints and returns the figures. */
export async function trialOfDoors(share: number) {
  const shop = await startSupervised();
  try {
    const [job] = await makeJobs(shop.url, 1);
    const { hostname, port } = new URL(shop.url);
    const ask = ({ method, path, headers, body }: Asked) =>
      new Promise<number>((resolve, reject) => {
        const sent = method === "GET" || method === "HEAD" ? "" : body;
        // Some methods have no body of their own accord: without its length it would be taken for the next request.
        const options = { headers: { ...headers, "Content-Length": `${Buffer.byteLength(sent)}` }, agent: false };
        const asked = request({ hostname, port, method, path: `/api${path}`, ...options }, (answer) => {
          // An event stream stays open.
          if (`${answer.headers["content-type"]}`.includes("event-stream")) answer.destroy();
          else answer.resume();
          resolve(answer.statusCode ?? 0);
        });
        asked.on("error", reject);
        asked.setTimeout(20_000, () => asked.destroy(new Error("no answer")));
        asked.end(sent);
      });
    const sum = async () => {
      const connection = await createConnection(shop.databaseUrl());
      const [tables] = await connection.query("SHOW TABLES");
      const names = (tables as object[]).map((row) => Object.values(row)[0]).filter((name) => name !== "migrations");
      const [sums] = await connection.query(`CHECKSUM TABLE ${names.join(", ")}`).finally(() => connection.end());
      return JSON.stringify(sums);
    };
    const own = `${hostname}:${port}`;
    /** Who may not be answered, and who may not change anything. */
    const strangers: Record<string, string>[] = [
      { Host: `tides.example.org:${port}`, [OWN_HEADER]: "x" },
      { Host: `127.0.0.1.tides.example.org`, Origin: `http://${own}` },
      { Host: own, Origin: "http://127.0.0.1:1", [OWN_HEADER]: "x" },
      { Host: own, Origin: `http://localhost:${port}`, [OWN_HEADER]: "x" },
      { Host: own, Origin: "null", [OWN_HEADER]: "x" },
      { Host: own },
    ];
    const before = await sum();
    const counts = new Map<number, number>();
    const bad: string[] = [];
    const all: (Asked & { isStranger: boolean })[] = [];
    for (const route of shopRoutes())
      for (const id of IDS)
        for (const method of METHODS)
          for (const type of TYPES)
            for (const [i, body] of BODIES.entries()) {
              if (Math.random() > share) continue;
              const path = route.replace(/:\w+/g, id === "JOB" ? (job?.id ?? "") : id);
              const stranger = strangers[(i + all.length) % strangers.length] ?? {};
              all.push({ method, path, body, headers: { ...stranger, "Content-Type": type }, isStranger: true });
              // From a program of ours: what it sends makes no sense, but it may.
              if (id !== "JOB")
                all.push({
                  method,
                  path,
                  body,
                  headers: { Host: own, [OWN_HEADER]: "x", "Content-Type": type },
                  isStranger: false,
                });
            }
    const askAll = async (some: readonly (typeof all)[number][]) => {
      let next = 0;
      const go = async () => {
        for (let one = some[next++]; one; one = some[next++]) {
          const status = await ask(one).catch(() => 599);
          counts.set(status, (counts.get(status) ?? 0) + 1);
          const isRead = ["GET", "HEAD", "OPTIONS"].includes(one.method);
          const isForeignName = !one.headers.Host?.startsWith(own);
          const isIn = status < 300 && one.isStranger && (isForeignName || !isRead);
          if (status >= 500 || isIn)
            bad.push(`${status} ${one.method} ${one.path} ${JSON.stringify(one.headers)} ${one.body.slice(0, 40)}`);
        }
      };
      await Promise.all(Array.from({ length: 8 }, go));
    };
    await askAll(all.filter(({ isStranger }) => isStranger));
    const isUnchanged = (await sum()) === before;
    // Some of what a program of ours may ask makes sense after all.
    await askAll(all.filter(({ isStranger }) => !isStranger));
    const figures = {
      asked: all.length,
      routes: shopRoutes().length,
      statuses: Object.fromEntries([...counts].sort()),
      bad: bad.length,
      isUnchanged,
    };
    console.log(figures, bad.slice(0, 20));
    return figures;
  } finally {
    await shop.stop();
  }
}
