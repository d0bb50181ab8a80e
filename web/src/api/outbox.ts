import { useSyncExternalStore } from "react";
import { stored, store } from "../storage/stored";
import { asProblem, Refused, type Problem, type Schemas } from "./client";
import { add, all, change, remove, type Entry, type Queued } from "./outboxStore";

export type { Entry, Queued } from "./outboxStore";

/*
 * Things to record, each kept in the browser's database under a number of its own until the server
 * gave a definite answer. One tab at a time sends them. Those about one subject go in order; one
 * that waits or was refused holds up no other subject.
 */

const TIMEOUT_MS = 60_000;
const FIRST_WAIT_MS = 3000;
const LONGEST_WAIT_MS = 60_000;
const LOCK = "ironpeel-outbox";
/** Where the queue lay before it had a database. */
const EARLIER = "ironpeel.outbox";

/** What tabs tell one another: that the queue changed, or how an entry was answered. */
type Told = { at: number; answer: unknown } | { at: number; refused: Problem } | undefined;

interface Waiter {
  resolve: (answer: unknown) => void;
  reject: (why: unknown) => void;
}

let entries: Queued[] = [];
/** What the browser had no room to keep: it lives as long as this page. */
const unkept = new Map<number, Queued>();
let nextUnkept = -1;
/** Whether an entry lives as long as this page, and no longer. */
export const isUnkept = ({ at }: Queued) => unkept.has(at);
const waiters = new Map<number, Waiter[]>();
/** On which page somebody waited for what was refused, and was told. */
const toldAt = new Map<number, string>();
const listeners = new Set<() => void>();
const recordedListeners = new Set<() => void>();
const signedOutListeners = new Set<() => void>();
/** Who sends. */
export interface Sender {
  /** Who is signed in here, or at this station; what another queued waits for them. */
  person?: string;
  /** The station of the floor this browser is. */
  station?: string;
  /** Whether they record what the floor does: they send what anybody queued at a station. */
  records: boolean;
}

let sender: Sender = { records: false };
let again: ReturnType<typeof setTimeout> | undefined;
let failures = 0;

const others =
  typeof BroadcastChannel === "undefined" ? undefined : new BroadcastChannel("ironpeel-outbox");
others?.addEventListener("message", ({ data }: MessageEvent<Told>) => void hear(data));

async function queue(): Promise<Queued[]> {
  const kept = await all().catch((): Queued[] => []);
  return [...kept, ...unkept.values()].sort((a, b) => a.since - b.since || a.at - b.at);
}

async function refresh(): Promise<void> {
  entries = await queue();
  listeners.forEach((listener) => listener());
}

const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other);

/** Records something: resolves when the server has it, rejects when the server refuses it. */
export async function record<T>(entry: Entry): Promise<T> {
  const subject = entry.subject ?? entry.path;
  const before = (await queue()).filter((one) => one.subject === subject);
  // What was refused is mended by this one; what happened stands by itself.
  const mended = entry.isEvent ? [] : before.filter((one) => one.refused);
  for (const one of mended) await forget(one.at);
  // Pressed twice, it waits once.
  const waiting = before.find((one) => !one.refused && same(one.body, entry.body));
  const { at } = waiting ?? (await keep({ ...entry, subject, since: Date.now(), ...mine() }));
  const answer = new Promise<T>((resolve, reject) => {
    const waiter = { resolve: resolve as Waiter["resolve"], reject };
    waiters.set(at, [...(waiters.get(at) ?? []), waiter]);
  });
  await tell();
  void send();
  return answer;
}

/** Whose it is, as far as that is known. */
function mine(): Pick<Queued, "author" | "station"> {
  const { person, station } = sender;
  return { ...(person && { author: person }), ...(person && station && { station }) };
}

async function keep(entry: Omit<Queued, "at">): Promise<Queued> {
  try {
    return await add(entry);
  } catch {
    const held = { ...entry, at: nextUnkept-- };
    unkept.set(held.at, held);
    return held;
  }
}

async function forget(at: number): Promise<void> {
  if (!unkept.delete(at)) await remove(at);
}

/** Lets a refused entry go. */
export async function discard(at: number): Promise<void> {
  await forget(at);
  await tell();
}

async function tell(what?: Told): Promise<void> {
  others?.postMessage(what);
  await hear(what);
}

/** What this tab does when an entry was queued or answered, here or in another tab. */
async function hear(what: Told): Promise<void> {
  if (!what) return refresh();
  const waiting = waiters.get(what.at) ?? [];
  waiters.delete(what.at);
  if ("refused" in what && waiting.length > 0) toldAt.set(what.at, window.location.pathname);
  await refresh();
  if ("refused" in what) {
    waiting.forEach(({ reject }) => reject(new Refused(what.refused)));
  } else {
    recordedListeners.forEach((listener) => listener());
    waiting.forEach(({ resolve }) => resolve(what.answer));
  }
}

let wanted = false;
let sending: Promise<void> | undefined;

/** Sends what waits, one tab at a time. */
function send(): Promise<void> {
  clearTimeout(again);
  wanted = true;
  sending ??= sendWanted().finally(() => (sending = undefined));
  return sending;
}

async function sendWanted(): Promise<void> {
  // A page without encryption has no locks: there, what two tabs send twice is stored once.
  const locks = navigator.locks as LockManager | undefined;
  let waits = false;
  while (wanted) {
    wanted = false;
    waits = await (locks ? locks.request(LOCK, sendAll) : sendAll());
  }
  failures = waits ? failures + 1 : 0;
  const wait = Math.min(FIRST_WAIT_MS * 2 ** (failures - 1), LONGEST_WAIT_MS);
  if (waits) again = setTimeout(() => void send(), wait);
}

/** Whether something has to be sent again later. */
async function sendAll(): Promise<boolean> {
  const held = new Set<string>();
  for (;;) {
    const next = (await queue()).find(
      (one) => !one.refused && !held.has(one.subject) && isTheirs(one, sender),
    );
    if (!next) return held.size > 0;
    if (!(await sendOne(next))) held.add(next.subject);
  }
}

/** What was written at a station says by whom and when: somebody else may be at it by now. */
function inTheNameOf({ author, station, since }: Queued): Record<string, string> {
  if (!author || !station) return {};
  return { "x-written-by": author, "x-written-at": new Date(since).toISOString() };
}

/** An event with the time it is sent at, by this clock: the server puts it right by its own. */
const asEvents = (event: unknown) => ({ sent_at: new Date().toISOString(), events: [event] });

/** Why the server did not take an event, if it did not. */
function eventRefusal(answer: unknown): Problem | undefined {
  const [event] = (answer as Schemas["EventsAnswer"]).events;
  if (event?.outcome !== "refused" && event?.outcome !== "conflict") return undefined;
  return { status: 422, title: "Not recorded", detail: event.message ?? "it was not taken" };
}

/** Whether it was answered definitely. */
async function sendOne(entry: Queued): Promise<boolean> {
  const { at } = entry;
  let response: Response;
  let answer: unknown;
  try {
    response = await fetch(entry.path, {
      method: entry.isEvent ? "POST" : "PUT",
      headers: { "content-type": "application/json", ...inTheNameOf(entry) },
      body: JSON.stringify(entry.isEvent ? asEvents(entry.body) : entry.body),
      signal: AbortSignal.timeout(TIMEOUT_MS),
    });
    if (response.status === 401) signedOutListeners.forEach((listener) => listener());
    if (response.status >= 500 || [401, 408, 425, 429].includes(response.status)) return false;
    answer = await response.json();
  } catch {
    return false;
  }
  if (response.ok && !(entry.isEvent && eventRefusal(answer))) {
    await forget(at);
    const { draft } = entry;
    if (draft && same(stored(draft.key), draft.as)) store(draft.key, undefined);
    await tell({ at, answer });
    return true;
  }
  const refused = (response.ok && eventRefusal(answer)) || asProblem(answer, response.status);
  if (unkept.has(at)) unkept.set(at, { ...entry, refused });
  else await change({ ...entry, refused });
  await tell({ at, refused });
  return true;
}

/** Takes over what an earlier version kept. */
async function begin(): Promise<void> {
  const earlier = stored<Entry[]>(EARLIER);
  if (Array.isArray(earlier)) {
    for (const entry of earlier) {
      await keep({ ...entry, subject: entry.path, since: Date.now() });
    }
  }
  store(EARLIER, undefined);
  await refresh();
  if (entries.length > 0) void send();
}

window.addEventListener("online", () => void send());
void begin();

/** What is not yet recorded. */
export function useOutbox(): Queued[] {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => entries,
  );
}

/** Whether a refusal stands on this page where it was typed. */
export const isToldAt = (at: number, path: string) => toldAt.get(at) === path;

/** Whether they may send it: what somebody queued is theirs, or waits; a station's is the floor's. */
export const isTheirs = (entry: Queued, { person, station, records }: Sender) =>
  entry.author === undefined ||
  entry.author === person ||
  (entry.station !== undefined && (records || entry.station === station));

/** Says who sends from now on, and sends what they may. */
export function setSender(next: Sender) {
  if (same(next, sender)) return;
  sender = next;
  if (next.person || next.station) void send();
}

/** Calls back when the server says that nobody is signed in. */
export const onSignedOut = (listener: () => void) => void signedOutListeners.add(listener);

/** Calls back whenever something was recorded, in this tab or another. */
export function onRecorded(listener: () => void): () => void {
  recordedListeners.add(listener);
  return () => recordedListeners.delete(listener);
}
