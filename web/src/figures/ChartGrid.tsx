import type { ScaleLinear } from "d3-scale";

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
      {y.ticks(6).map((tick) => (
        <g key={tick}>
          <line
            x1={edge.left}
            x2={width - edge.right}
            y1={y(tick)}
            y2={y(tick)}
            stroke="var(--color-hair)"
          />
          <text x={edge.left - 6} y={y(tick) + 4} textAnchor="end">
            {tick}
          </text>
        </g>
      ))}
      {x.ticks(12).map((tick) => (
        <text key={tick} x={x(tick)} y={height - 10} textAnchor="middle">
          {tick}
        </text>
      ))}
      <text x={width - 4} y={height - 22} textAnchor="end">
        {units[0]}
      </text>
      <text x={4} y={14}>
        {units[1]}
      </text>
    </g>
  );
}
