import { useSyncExternalStore } from "react";
import type { Schemas } from "../api/client";
import { record, useOutbox } from "../api/outbox";
import type { Details, Kind } from "./run";

/** What was stamped here, until the batch as the server has it says so too. */
export interface Stamp extends Details {
  id: string;
  kind: Kind;
  happened_at: string;
  person?: string;
  corrects?: string;
}

const pathOf = (batch: string) => `/api/v1/batches/${batch}/events`;

let sent: { batch: string; stamp: Stamp }[] = [];
const listeners = new Set<() => void>();
const tell = () => listeners.forEach((listener) => listener());
let last = 0;

/** Each after the one before it: two at one moment would have no order. */
function moment(): string {
  last = Math.max(Date.now(), last + 1);
  return new Date(last).toISOString();
}

export interface Said extends Details {
  kind: Kind;
  corrects?: string;
}

/** Writes something down: it stands at once, and is sent when it can be. */
export function stamp(batch: string, label: string, said: Said, person?: string): Promise<void> {
  const event: Stamp = { id: crypto.randomUUID(), happened_at: moment(), ...said };
  if (person) event.person = person;
  sent = [...sent, { batch, stamp: event }];
  tell();
  return record({ path: pathOf(batch), label, body: event, isEvent: true }).then(
    () => undefined,
    () => {
      // Refused, it stands where what was refused stands.
      sent = sent.filter((one) => one.stamp.id !== event.id);
      tell();
    },
  );
}

/** What was stamped on a batch here and the server's answer does not have yet, in order. */
export function useStamps(batch: string, known: Schemas["EventRecord"][] | undefined): Stamp[] {
  const here = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => sent,
  );
  const queued = useOutbox().filter((one) => one.path === pathOf(batch) && !one.refused);
  const has = new Set(known?.map((one) => one.event));
  const all = new Map<string, Stamp>();
  for (const one of queued) {
    const body = one.body as Stamp;
    all.set(body.id, body);
  }
  for (const one of here) if (one.batch === batch) all.set(one.stamp.id, one.stamp);
  return [...all.values()]
    .filter((one) => !has.has(one.id))
    .sort((one, other) => one.happened_at.localeCompare(other.happened_at));
}
