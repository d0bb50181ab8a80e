import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";

interface Props {
  rests: Schemas["MixingRest"][];
  /** The sheet's, one for each stage. */
  steps: Schemas["SheetStep"][];
}

/** How warm a dough is before and after it rests between two mixings. */
export function MixingRests({ rests, steps }: Props) {
  const format = useFormat();
  return rests.map((rest) => (
    <p key={rest.stage} className="mt-3 text-sm">
      <b>{steps[rest.stage]?.label}</b>: {format.mass(rest.kg)} lie {format.minutes(rest.minutes)}{" "}
      at {format.temperature(rest.around_c, 0)}, from{" "}
      <span className="figure">{format.temperature(rest.left_c)}</span> to{" "}
      <span className="figure">{format.temperature(rest.rested_c)}</span>; the room{" "}
      {rest.lost_kj < 0 ? "gives it" : "takes"} {format.number(Math.abs(rest.lost_kj))} kJ.
    </p>
  ));
}
