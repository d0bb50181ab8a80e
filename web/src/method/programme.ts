import type { Schemas } from "../api/client";
import type { StageInput } from "./method";
import type { Format } from "../units/format";

/** What helps a home oven. */
export const AIDS: Record<Schemas["OvenAid"], string> = {
  hot_vessel: "a hot vessel",
  stone: "a hot stone",
  tray_of_water: "a tray of boiling water",
};

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
    phase.steam_until_core_c != null &&
      `steam off at a core of ${format.temperature(phase.steam_until_core_c, 0)}`,
    phase.damper_open && "damper open",
    phase.lid && "under a lid",
    phase.tin_out && "out of the tin",
    phase.aid && `with ${AIDS[phase.aid]}`,
  ]
    .filter(Boolean)
    .join(", ");
