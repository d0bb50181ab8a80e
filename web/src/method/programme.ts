import type { Schemas } from "../api/client";
import type { StageInput } from "./method";
import type { Format } from "../units/format";

/** What an oven does in one phase: `6 min at 220 °C, below 225 °C, 5 s of steam`. */
export const phaseText = (
  phase: NonNullable<StageInput["programme"]>[number] | Schemas["BakePhase"],
  format: Format,
): string =>
  [
    `${format.minutes(phase.minutes ?? 0)} at ${format.temperature(phase.top_c ?? 0, 0)}`,
    phase.bottom_c != null &&
      phase.bottom_c !== phase.top_c &&
      `below ${format.temperature(phase.bottom_c, 0)}`,
    phase.steam_s != null && `${format.number(phase.steam_s, 0)} s of steam`,
    phase.damper_open && "damper open",
  ]
    .filter(Boolean)
    .join(", ");
