import { TZDate } from "@date-fns/tz";
import { useSyncExternalStore } from "react";
import { answer, api } from "../api/client";
import { store, stored } from "../storage/stored";

// The clock on the plant's wall: every hour and day shown or typed is its, wherever this browser is.

const KEY = "ironpeel.clock";
const own = Intl.DateTimeFormat().resolvedOptions().timeZone;

const kept = stored<{ zone: string }>(KEY)?.zone;
/** Whether this browser knows a zone of this name. */
function isZone(name: string): boolean {
  try {
    return Boolean(Intl.DateTimeFormat("en", { timeZone: name }));
  } catch {
    return false;
  }
}

let zone = kept && isZone(kept) ? kept : own;
const listeners = new Set<() => void>();

/** The plant's zone, by its name. */
export const plantZone = () => zone;

/** The zone of this browser, by its name. */
export const browserZone = () => own;

export function setPlantZone(next: string) {
  if (!isZone(next)) return;
  store(KEY, { zone: next });
  if (next === zone) return;
  zone = next;
  listeners.forEach((listener) => listener());
}

/** Asks the server for the plant's zone; what was kept holds where it does not answer. */
export async function askPlantZone(): Promise<void> {
  const clock = await answer(api.GET("/api/v1/plant/clock")).catch(() => undefined);
  if (clock) setPlantZone(clock.time_zone);
}

export const isZoneKnown = () => kept !== undefined;

export function usePlantZone(): string {
  return useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, plantZone);
}

/** A moment as the plant's clock shows it. */
export const onTheWall = (moment: Date | number | string) => new TZDate(+new Date(moment), zone);

/** A date and a time as a browser's field keeps them, by the plant's clock. */
export const fieldOf = (moment: Date | number | string): string =>
  onTheWall(moment).toISOString().slice(0, 16);

/** The moment of a date and a time as a browser's field keeps them; not valid if they are none. */
export function momentOf(field: string): Date {
  const [, ...read] = /^(\d+)-(\d+)-(\d+)T(\d+):(\d+)/.exec(field) ?? [];
  const [year = NaN, month = NaN, day, hour, minute] = read.map(Number);
  return new Date(+new TZDate(year, month - 1, day ?? NaN, hour ?? NaN, minute ?? NaN, zone));
}
