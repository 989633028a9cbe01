// A bad file is an expected answer, so it is data, not an exception.
import { IntakeError } from "../intake/index.ts";

export type Outcome<T> = { ok: true; value: T } | { ok: false; message: string; status: number };

export async function orBadFile<T>(work: () => Promise<T> | T): Promise<Outcome<T>> {
  try {
    return { ok: true, value: await work() };
  } catch (error) {
    if (error instanceof IntakeError) return { ok: false, message: error.message, status: error.status };
    throw error;
  }
}
