import type { Schemas } from "../api/client";

/** A limit is announced so many minutes before it is passed. */
const ANNOUNCED_MIN = 15;

/** Minutes until a stage that is open passes its longest, once that is near; negative after it. */
export function limitNear(
  times: Schemas["StageTimes"] | undefined,
  now: number,
): number | undefined {
  if (times?.begun_at == null || times.ended_at != null) return undefined;
  const left = Math.round((Date.parse(times.limit_at) - now) / 60_000);
  return left <= ANNOUNCED_MIN ? left : undefined;
}
