import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import type { Problem } from "./client";

/** Something to record, as a caller gives it. */
export interface Entry {
  /** Where it is put; it carries an id made here, so that one sent twice is stored once. */
  path: string;
  /** What it is, for the person waiting for it. */
  label: string;
  body: unknown;
  /** What it is about: entries of one subject go in order, and a refused one is mended by the next. */
  subject?: string;
  /** Something that happened to a batch: one of many at its address, each under an id of its own. */
  isEvent?: boolean;
  /** What was kept of it while it was typed, let go once it is recorded. */
  draft?: { key: string; as: object };
}

/** An entry until it is recorded or discarded. */
export interface Queued extends Entry {
  /** In order of arrival. */
  at: number;
  subject: string;
  /** When it was put here, as milliseconds. */
  since: number;
  /** Whose it is, by their id. */
  author?: string;
  /** The station of the floor it was written at: it is sent in its author's name, whoever is at it. */
  station?: string;
  refused?: Problem;
}

interface Schema extends DBSchema {
  outbox: { key: number; value: Queued };
}

let database: Promise<IDBPDatabase<Schema>> | undefined;

const open = () =>
  (database ??= openDB<Schema>("ironpeel", 1, {
    upgrade: (db) => void db.createObjectStore("outbox", { keyPath: "at", autoIncrement: true }),
  }));

/** Keeps an entry under the next number. */
export async function add(entry: Omit<Queued, "at">): Promise<Queued> {
  const db = await open();
  const at = await db.add("outbox", entry as Queued);
  return { ...entry, at };
}

export const all = async (): Promise<Queued[]> => (await open()).getAll("outbox");

export const change = async (entry: Queued): Promise<void> => {
  const db = await open();
  const transaction = db.transaction("outbox", "readwrite");
  // Gone meanwhile, it stays gone.
  if (await transaction.store.getKey(entry.at)) await transaction.store.put(entry);
  await transaction.done;
};

export const remove = async (at: number): Promise<void> => (await open()).delete("outbox", at);
