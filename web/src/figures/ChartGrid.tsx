import type { ScaleLinear } from "d3-scale";
import { ChartAxis, marksOf } from "./ChartAxis";

interface Props {
  x: ScaleLinear<number, number>;
  y: ScaleLinear<number, number>;
  width: number;
  height: number;
  edge: { left: number; right: number };
  /** What stands along the foot and up the side. */
  units: [string, string];
}

/** The ruled paper a curve is drawn on: hairlines, figures, units. */
export function ChartGrid({ x, y, width, height, edge, units }: Props) {
  return (
    <g fontSize="12" fill="var(--color-iron)">
      <ChartAxis
        marks={marksOf(y, 6, String)}
        left={edge.left - 6}
        across={[edge.left, width - edge.right]}
      />
      <ChartAxis marks={marksOf(x, 12, String)} foot={height - 10} />
      <text x={width - 4} y={height - 22} textAnchor="end">
        {units[0]}
      </text>
      <text x={4} y={14}>
        {units[1]}
      </text>
    </g>
  );
}
