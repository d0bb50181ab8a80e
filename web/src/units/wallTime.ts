import { addDays, format, isValid, parse } from "date-fns";
import type { Preferences } from "./preferences";

// A date and a time by the plant's clock, as it is typed and shown: kept as `2026-11-27T05:00`.

const FIELD = "yyyy-MM-dd'T'HH:mm";
const DAYS = ["yyyy-MM-dd", "d.M.yyyy", "d MMM yyyy", "d MMMM yyyy", "d MMM", "d MMMM"];
const TIMES = ["HH:mm", "H:mm", "HH.mm", "h:mm a", "h:mma", "h a", "ha"];

/** As it is shown in a field. */
export function showWallTime(field: string, clock: Preferences["clock"]): string {
  const at = parse(field, FIELD, new Date());
  if (!isValid(at)) return "";
  return format(at, clock === "12" ? "EEE d MMM yyyy, h:mm aaa" : "EEE d MMM yyyy, HH:mm");
}

/**
 * What was typed: a day and a time in any usual order of marks, a time alone for the day that
 * stands, or today and tomorrow with a time. None where it is no date and time.
 */
export function readWallTime(text: string, stands: string, today: string): string | null {
  const typed = text
    .trim()
    .replace(/^(mon|tue|wed|thu|fri|sat|sun)[a-z]*,?\s+/i, "")
    .replace(/\s+/g, " ");
  const [, word, rest] = /^(today|tomorrow),? (.+)$/i.exec(typed) ?? [];
  const now = parse(today, FIELD, new Date());
  if (word && rest)
    return firstOf(TIMES, rest, addDays(now, word.toLowerCase() === "today" ? 0 : 1));
  const base = parse(stands, FIELD, now);
  const whole = DAYS.flatMap((day) =>
    ["'T'", " ", ", "].flatMap((between) => TIMES.map((time) => day + between + time)),
  );
  return firstOf(whole, typed, now) ?? firstOf(TIMES, typed, isValid(base) ? base : now);
}

function firstOf(formats: string[], text: string, base: Date): string | null {
  for (const one of formats) {
    const at = parse(text, one, base);
    if (isValid(at) && at.getFullYear() > 1999) return format(at, FIELD);
  }
  return null;
}

/** So many minutes later, or earlier. */
export function moveWallTime(field: string, minutes: number): string {
  const at = parse(field, FIELD, new Date());
  return isValid(at) ? format(new Date(at.getTime() + minutes * 60_000), FIELD) : field;
}
