import type { Schemas } from "../api/client";

/** A limit is announced so many minutes before it is passed, of a short stage in its last quarter. */
const ANNOUNCED_MIN = 15;
const LAST = 0.25;

/** Minutes until a stage that is open passes its longest, once that is near; negative after it. */
export function limitNear(
  times: Schemas["StageTimes"] | undefined,
  now: number,
): number | undefined {
  if (times?.begun_at == null || times.ended_at != null) return undefined;
  const minutes = (from: number) => (Date.parse(times.limit_at) - from) / 60_000;
  const left = minutes(now);
  const near = Math.min(ANNOUNCED_MIN, LAST * minutes(Date.parse(times.begun_at)));
  return left <= near ? Math.round(left) : undefined;
}
