import type { ScaleLinear } from "d3-scale";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";

interface Props {
  drift: Schemas["Drift"];
  x: ScaleLinear<number, number>;
  y: ScaleLinear<number, number>;
  /** From where to where the rules run. */
  across: readonly [number, number];
}

/** Centre, three-sigma limits and moving average of a control chart. */
export function ControlLimits({ drift, x, y, across: [from, to] }: Props) {
  const format = useFormat();
  const { points, centre, lower, upper } = drift;
  const rule = (value: number, name: string, dash?: string) => (
    <g>
      <line
        x1={from}
        x2={to}
        y1={y(value)}
        y2={y(value)}
        stroke="var(--color-iron)"
        strokeDasharray={dash}
      />
      <text x={to + 6} y={y(value) + 4} fontSize="12" fill="var(--color-iron)">
        {name} {format.plain(Number(value.toPrecision(3)))}
      </text>
    </g>
  );
  return (
    <>
      {rule(centre, "centre")}
      {rule(upper, "+3σ", "6 4")}
      {rule(lower, "−3σ", "6 4")}
      <path
        d={`M${points.map((point, i) => `${x(i).toFixed(1)} ${y(point.ewma).toFixed(1)}`).join("L")}`}
        fill="none"
        stroke="var(--color-water)"
        strokeWidth="2"
      />
    </>
  );
}
