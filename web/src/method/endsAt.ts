import type { Schemas } from "../api/client";
import type { Format } from "../units/format";
import type { StageInput } from "./method";

/** What a stage ends at, in words; none where that is only seen. */
export function endsAt(
  stage: StageInput,
  figure: Schemas["EndFigure"] | null | undefined,
  stages: StageInput[],
  format: Format,
): string | null {
  if (stage.end_point === "drop") return "a drop";
  const after = stages.find((one) => one.id === stage.ends_after)?.label;
  return endFigure(stage.ends_at, figure, format, after);
}

/** The number a stage ends at, in words. */
export function endFigure(
  value: number | null | undefined,
  figure: Schemas["EndFigure"] | null | undefined,
  format: Format,
  after = "another stage",
): string | null {
  if (value == null || !figure) return null;
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
    case "minutes_after":
      return `${format.minutes(value)} after ${after}`;
  }
}
