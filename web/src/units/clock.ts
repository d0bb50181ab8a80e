import { DateTime } from "luxon";
import { useSyncExternalStore } from "react";
import { answer, api } from "../api/client";
import { store, stored } from "../storage/stored";

// The clock on the plant's wall: every hour and day shown or typed is its, wherever this browser is.

const KEY = "ironpeel.clock";
const own = Intl.DateTimeFormat().resolvedOptions().timeZone;

const kept = stored<{ zone: string }>(KEY)?.zone;
let zone = kept && DateTime.local({ zone: kept }).isValid ? kept : own;
const listeners = new Set<() => void>();

/** The plant's zone, by its name. */
export const plantZone = () => zone;

/** The zone of this browser, by its name. */
export const browserZone = () => own;

export function setPlantZone(next: string) {
  if (!DateTime.local({ zone: next }).isValid) return;
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
export const onTheWall = (moment: Date | number | string) =>
  DateTime.fromJSDate(new Date(moment), { zone });

/** A date and a time as a browser's field keeps them, by the plant's clock. */
export const fieldOf = (moment: Date | number | string): string =>
  onTheWall(moment).toFormat("yyyy-MM-dd'T'HH:mm");

/** The moment of a date and a time as a browser's field keeps them; not valid if they are none. */
export const momentOf = (field: string): Date => DateTime.fromISO(field, { zone }).toJSDate();
