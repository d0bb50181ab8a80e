import type { Schemas } from "../api/client";
import { addDays, set } from "date-fns";
import { joined, parted, type InAddress } from "../scenario/useAddressed";
import { fieldOf, momentOf, onTheWall } from "../units/clock";

/** What is asked of a day: when, and when not. */
export interface ScheduleQuery {
  by: Schemas["AnchorInput"]["by"];
  /** As a browser's field for a date and a time keeps it: by the plant's clock. */
  at: string;
  closed_hours: { from: string; to: string }[];
}

export const DAY_KEY = "ironpeel.day";

/** In the address: when, and the closed hours as `22:00-4:00`. */
export const DAY_IN_ADDRESS: InAddress<ScheduleQuery> = {
  read: (search) => {
    const [by, at, ...closed] = parted(search.get("day"));
    if (!at || (by !== "from" && by !== "out_by")) return undefined;
    return { by, at, closed_hours: closed.map(hoursOf) };
  },
  write: ({ by, at, closed_hours }) => ({ day: joined([by, at, ...closed_hours.map(hoursText)]) }),
};

export const hoursText = ({ from, to }: ScheduleQuery["closed_hours"][number]) => `${from}-${to}`;
export function hoursOf(text: string): ScheduleQuery["closed_hours"][number] {
  const [from = "", to = ""] = text.split("-");
  return { from, to };
}

/** Minutes of the day of a time of day; none if it is none. */
export function minutesOf(time: string): number | null {
  const read = /^\s*(\d{1,2}):(\d{2})\s*$/.exec(time);
  const [hours, minutes] = [Number(read?.[1]), Number(read?.[2])];
  return read && hours < 24 && minutes < 60 ? hours * 60 + minutes : null;
}

/** Tomorrow at five, and nobody there at night. */
export function usualDay(now: Date): ScheduleQuery {
  const tomorrow = set(addDays(onTheWall(now), 1), { hours: 5, minutes: 0 });
  return {
    by: "out_by",
    at: fieldOf(tomorrow),
    closed_hours: [{ from: "22:00", to: "4:00" }],
  };
}

/** What was asked last, for tomorrow at five if nothing was. */
export function keptDay(kept?: Partial<ScheduleQuery>, now = new Date()): ScheduleQuery {
  const usual = usualDay(now);
  const last = { ...usual, ...kept };
  // What was kept may be of an earlier version or cut short.
  if (Number.isNaN(momentOf(last.at).getTime())) last.at = usual.at;
  // A plan for a day gone by is no plan.
  return last.at < fieldOf(now) ? { ...last, at: usual.at } : last;
}

/** As the server takes it, by the plant's clock; nothing begins before now. */
export const dayInput = (day: ScheduleQuery, now: Date): Schemas["ScheduleInput"] => ({
  anchor: { by: day.by, at: momentOf(day.at).toISOString() },
  closed_hours: day.closed_hours,
  not_before: now.toISOString(),
});
