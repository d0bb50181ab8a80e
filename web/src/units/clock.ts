import { TZDate } from "@date-fns/tz";
import { addDays } from "date-fns";
import { answer, api, type Schemas } from "../api/client";
import { store, stored } from "../storage/stored";

// The clock on the plant's wall: every hour and day shown or typed is its, wherever this browser is.

const KEY = "ironpeel.clock";

/** What is everybody's of how things are said. */
export interface PlantWords {
  zone: string;
  /** What prices are in; empty where it is not said. */
  currency: string;
  weekStarts: Schemas["WeekStart"];
  temperature: "C" | "F";
  mass: "kg" | "lb";
}

const kept = stored<Partial<PlantWords>>(KEY);

let words: PlantWords = {
  zone: "",
  currency: "",
  weekStarts: "monday",
  temperature: "C",
  mass: "kg",
  ...kept,
};
const listeners = new Set<() => void>();

/** What is everybody's. */
export const plantWords = () => words;

/** The zone of this browser, by its name. */
export const browserZone = () => Intl.DateTimeFormat().resolvedOptions().timeZone;

const shownBy = new Map<string, string>();

/**
 * The zone hours are shown by where the plant's is of this name: this browser's own where it is
 * not known. Looked up when an hour is first shown, since that takes a while.
 */
export function shownZone(name: string): string {
  const shown = shownBy.get(name) ?? (isZone(name) ? name : browserZone());
  shownBy.set(name, shown);
  return shown;
}

/** The plant's zone, by its name. */
export const plantZone = () => shownZone(words.zone);

/** Whether this browser knows a zone of this name. */
function isZone(name: string): boolean {
  try {
    return name !== "" && Boolean(Intl.DateTimeFormat("en", { timeZone: name }));
  } catch {
    return false;
  }
}

export function setPlantWords(settings: Schemas["PlantSettings"]) {
  const next: PlantWords = {
    zone: settings.time_zone,
    currency: settings.currency,
    weekStarts: settings.week_starts,
    temperature: settings.temperature_unit === "fahrenheit" ? "F" : "C",
    mass: settings.mass_unit === "pound" ? "lb" : "kg",
  };
  store(KEY, next);
  if (JSON.stringify(next) === JSON.stringify(words)) return;
  words = next;
  listeners.forEach((listener) => listener());
}

/** Asks the server for what is everybody's; what was kept holds where it does not answer. */
export async function askPlantWords(): Promise<void> {
  const settings = await answer(api.GET("/api/v1/plant/settings")).catch(() => undefined);
  if (settings) setPlantWords(settings);
}

export const isZoneKnown = () => kept !== undefined;

/** Tells when what is everybody's changes, until it is called off. */
export function onPlantWords(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** A moment as the plant's clock shows it. */
export const onTheWall = (moment: Date | number | string) =>
  new TZDate(+new Date(moment), plantZone());

/** A date and a time as a browser's field keeps them, by the plant's clock. */
export const fieldOf = (moment: Date | number | string): string =>
  onTheWall(moment).toISOString().slice(0, 16);

/** When a day as a browser's field keeps it begins and ends by the plant's clock; none if it is none. */
export function dayOf(field: string): { from: string; to: string } | undefined {
  const from = momentOf(`${field}T00:00`);
  if (isNaN(+from)) return undefined;
  const to = new Date(+addDays(onTheWall(from), 1));
  return { from: from.toISOString(), to: to.toISOString() };
}

/** The moment of a date and a time as a browser's field keeps them; not valid if they are none. */
export function momentOf(field: string): Date {
  const [, ...read] = /^(\d+)-(\d+)-(\d+)T(\d+):(\d+)/.exec(field) ?? [];
  const [year = NaN, month = NaN, day, hour, minute] = read.map(Number);
  return new Date(
    +new TZDate(year, month - 1, day ?? NaN, hour ?? NaN, minute ?? NaN, plantZone()),
  );
}
