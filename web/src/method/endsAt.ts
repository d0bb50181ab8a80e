import type { Schemas } from "../api/client";
import type { Format } from "../units/format";
import type { StageInput } from "./method";

/** The number a stage ends at, in words; the sign alone where it has none. */
export function endsAt(
  stage: StageInput,
  figure: Schemas["EndFigure"] | null | undefined,
  stages: StageInput[],
  format: Format,
): string | null {
  if (stage.end_point === "drop") return "a drop";
  if (stage.ends_at == null || !figure) return null;
  const value = stage.ends_at;
  switch (figure) {
    case "rise":
      return `+${format.percent(value, 0)}`;
    case "dough_temperature":
      return `dough of ${format.temperature(value)}`;
    case "core_temperature":
      return `core of ${format.temperature(value, 0)}`;
    case "height":
      return `${format.number(value, 0)} mm`;
    case "ph":
      return `pH ${format.number(value)}`;
    case "minutes_after": {
      const after = stages.find((one) => one.id === stage.ends_after)?.label;
      return `${format.minutes(value)} after ${after ?? "another stage"}`;
    }
  }
}
