import type { ScaleTime } from "d3-scale";
import { useFormat } from "../units/format";
import { ChartAxis, marksOf } from "./ChartAxis";

interface Props {
  x: ScaleTime<number, number>;
  /** Where the line runs. */
  y: number;
}

/** Hours along the foot of a figure. */
export function TimeAxis({ x, y }: Props) {
  const format = useFormat();
  const [from = 0, to = 0] = x.range();
  return (
    <>
      <line x1={from} x2={to} y1={y} y2={y} stroke="var(--color-ink)" />
      <ChartAxis marks={marksOf(x, 10, (tick) => format.time(tick.toISOString()))} foot={y + 18} />
    </>
  );
}
