import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import { Refused } from "./client";

/*
 * What a tablet may have to go on with when the connection is lost: the board and the batches of the
 * day, as they were last seen. Let go of at sign-out, and after two days.
 */

const LASTS_MS = 48 * 3_600_000;

interface Schema extends DBSchema {
  seen: { key: string; value: { at: number; answer: unknown } };
}

let database: Promise<IDBPDatabase<Schema>> | undefined;

const open = () =>
  (database ??= openDB<Schema>("ironpeel-floor", 1, {
    upgrade: (db) => void db.createObjectStore("seen"),
  }));

/** Asks, and keeps the answer; without a connection what was kept is the answer. */
export async function keptWhenLost<T>(key: string, ask: () => Promise<T>): Promise<T> {
  try {
    const answer = await ask();
    await open()
      .then((db) => db.put("seen", { at: Date.now(), answer }, key))
      .catch(() => undefined);
    return answer;
  } catch (error) {
    if (error instanceof Refused && error.problem.status < 500) throw error;
    const kept = await open()
      .then((db) => db.get("seen", key))
      .catch(() => undefined);
    if (!kept || Date.now() - kept.at > LASTS_MS) throw error;
    return kept.answer as T;
  }
}

/** Lets go of everything that was kept. */
export const forgetRuns = () =>
  open()
    .then((db) => db.clear("seen"))
    .catch(() => undefined);
