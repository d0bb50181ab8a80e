import type { Schemas } from "../api/client";
import { numberOf } from "../scenario/scenario";
import { joined, parted, type InAddress } from "../scenario/useAddressed";
import { fieldOf, momentOf } from "../units/clock";
import { hoursOf, hoursText, usualDay, type ScheduleQuery } from "./schedule";

/** The line standing still, as it is asked. */
export interface StopAsked {
  at: string;
  minutes: number;
  place: Schemas["Place"] | "";
}

/** What is asked of a run. */
export interface RunQuery extends ScheduleQuery {
  /** When it was planned: it begins no earlier, and stays as it is once it has begun. */
  since: string;
  shifts: { dough: number; stage: number; by_min: number }[];
  stop: StopAsked | undefined;
  /** Doughs that are not made after all, by their number. */
  dropped: number[];
}

export const RUN_KEY = "ironpeel.run.";

/** In the address: when and the closed hours, since when, moves as `dough.stage.minutes`, the stop. */
export const RUN_IN_ADDRESS: InAddress<RunQuery> = {
  read: (search) => {
    const [by, at, since, ...closed] = parted(search.get("run"));
    if (!at || !since || (by !== "from" && by !== "out_by")) return undefined;
    const [from, minutes, place] = parted(search.get("stopped"));
    return {
      by,
      at,
      since,
      closed_hours: closed.map(hoursOf),
      shifts: parted(search.get("moved")).flatMap((text) => {
        const [dough, stage, by_min] = text.split(".").map(Number);
        const whole = [dough, stage, by_min].every(Number.isInteger);
        return whole ? [{ dough: dough ?? 0, stage: stage ?? 0, by_min: by_min ?? 0 }] : [];
      }),
      stop: from
        ? { at: from, minutes: numberOf(minutes) ?? 0, place: (place ?? "") as StopAsked["place"] }
        : undefined,
      dropped: parted(search.get("dropped")).map(Number).filter(Number.isInteger),
    };
  },
  write: ({ by, at, since, closed_hours, shifts, stop, dropped }) => ({
    run: joined([by, at, since, ...closed_hours.map(hoursText)]),
    moved:
      joined(shifts.map((one) => `${one.dough}.${one.stage}.${Math.round(one.by_min)}`)) || null,
    stopped: stop ? joined([stop.at, String(stop.minutes), stop.place]) : null,
    dropped: dropped.join(",") || null,
  }),
};

/** What was asked last of a product's run; tomorrow at five with nobody away if nothing was. */
export function keptRun(kept?: Partial<RunQuery>, now = new Date()): RunQuery {
  const usual: RunQuery = {
    ...usualDay(now),
    since: now.toISOString(),
    closed_hours: [],
    shifts: [],
    stop: undefined,
    dropped: [],
  };
  const last = { ...usual, ...kept };
  const moments = [momentOf(last.at), new Date(last.since)];
  if (last.stop) moments.push(momentOf(last.stop.at));
  // What was kept may be of an earlier version or cut short.
  if (moments.some((moment) => Number.isNaN(moment.getTime()))) return usual;
  // A run gone by is no run; its moves and its standstill were of that day.
  return last.at < fieldOf(now) ? { ...usual, closed_hours: last.closed_hours } : last;
}

export const stopInput = (stop: StopAsked): Schemas["StopInput"] => ({
  at: momentOf(stop.at).toISOString(),
  minutes: stop.minutes,
  place: stop.place || null,
});
