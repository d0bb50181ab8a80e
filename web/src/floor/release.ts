import type { Schemas } from "../api/client";
import type { Format } from "../units/format";
import { DISPOSITION } from "../shell/disposition";

/** Who let a lot go to the floor, when and with what note. */
export const releasedBy = (format: Format, lot: string, decision: Schemas["LotDisposition"]) =>
  `${lot} ${DISPOSITION[decision.decision]?.word ?? decision.decision} by ${decision.made_by}, ` +
  `${format.moment(decision.made_at)}${decision.reason && `: ${decision.reason}`}`;

/** How a lot stands, in words for the floor; none where there is nothing to say. */
export function releaseOf(format: Format, { code, status }: Schemas["LotView"]): string[] {
  if (status.barred) return [`${code} is not released: ${status.barred}`];
  const { decision } = status;
  return decision ? [releasedBy(format, code, decision)] : [];
}
