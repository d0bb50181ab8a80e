import { scaleLinear } from "d3-scale";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { spread } from "./scale";

const WIDTH = 620;
const ROW = 34;
const NAME = 150;

/** Points of water by what explains them, with the range of each house default. */
export function AbsorptionChange({
  absorption_difference,
}: {
  absorption_difference: Schemas["AbsorptionDifference"];
}) {
  const format = useFormat();
  const { parts, measured } = absorption_difference;
  const all = [0, measured ?? 0, ...parts.flatMap((part) => [part.low, part.high])];
  const x = scaleLinear(spread(all, 0.12), [NAME, WIDTH - 60]);
  const rows = [
    ...parts,
    ...(measured == null
      ? []
      : [{ key: "measured", label: "measured", points: measured, low: measured, high: measured }]),
  ];
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${rows.length * ROW + 6}`}
      className="block w-full max-w-3xl"
      role="img"
      aria-label="Points of water by what explains them; the table has the figures"
    >
      <line x1={x(0)} x2={x(0)} y1="0" y2={rows.length * ROW} stroke="var(--color-ink)" />
      {rows.map((part, at) => {
        const y = at * ROW + 6;
        const total = part.key === "measured";
        const colour =
          part.key === "damaged_starch"
            ? "var(--color-crust)"
            : total
              ? "var(--color-ink)"
              : "var(--color-water)";
        return (
          <g key={part.key}>
            <text
              x={NAME - 10}
              y={y + 16}
              textAnchor="end"
              fontSize="14"
              fontWeight={total ? 650 : 400}
              fill="var(--color-ink)"
            >
              {part.label}
            </text>
            <rect
              x={Math.min(x(0), x(part.points))}
              width={Math.max(1.5, Math.abs(x(part.points) - x(0)))}
              y={y}
              height="22"
              fill={part.key === "unexplained" ? "none" : colour}
              stroke={colour}
              strokeDasharray={part.key === "unexplained" ? "4 3" : undefined}
              opacity={total ? 1 : 0.75}
            />
            {part.low !== part.high && (
              <path
                d={`M${x(part.low)} ${y + 6}v10M${x(part.low)} ${y + 11}H${x(part.high)}M${x(part.high)} ${y + 6}v10`}
                stroke="var(--color-ink)"
                strokeWidth="1.3"
                fill="none"
              />
            )}
            <text
              x={Math.max(x(0), x(part.points), x(part.high)) + 8}
              y={y + 16}
              fontSize="14"
              fontWeight="650"
              fill="var(--color-ink)"
            >
              {format.signed(part.points)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
