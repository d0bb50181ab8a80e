import { scaleLinear } from "d3-scale";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";

const WIDTH = 1000;
const LABEL = 190;
const ROW = 17;
const GAP = 150;

type Way = Schemas["ProcessOutcome"];

interface Props {
  own: Way;
  other: Way;
}

/** Both ways as bars on common scales: how long, how much work, how much floor, how much water. */
export function ProcessComparisonFigure({ own, other }: Props) {
  const format = useFormat();
  const scales: [string, (way: Way) => number, (value: number) => string, string][] = [
    ["hours", (way) => way.hours, (value) => format.minutes(value * 60), "var(--color-moss)"],
    [
      "mixing, kJ/kg",
      (way) => way.mixing_kj_per_kg,
      (value) => format.number(value),
      "var(--color-ink)",
    ],
    ["floor, m²", (way) => way.floor_m2, (value) => format.number(value), "var(--color-crust)"],
    [
      "water, %",
      (way) => way.dough_absorption_pct,
      (value) => format.number(value),
      "var(--color-water)",
    ],
  ];
  const height = scales.length * (ROW * 2 + 8);
  return (
    <figure aria-label="Straight and sponge on common scales">
      <svg viewBox={`0 0 ${WIDTH} ${height}`} className="block w-full" aria-hidden>
        {scales.map(([label, of, show, colour], row) => {
          const x = scaleLinear([0, Math.max(of(own), of(other), 1e-9)], [0, WIDTH - LABEL - GAP]);
          return [own, other].map((way, at) => {
            const y = row * (ROW * 2 + 8) + at * ROW;
            const width = Math.max(1, x(of(way)));
            return (
              <g key={`${label} ${at}`}>
                <text x={0} y={y + 13} fontSize="12" fill="var(--color-iron)">
                  {at === 0 ? label : ""}
                </text>
                <rect
                  x={LABEL}
                  y={y + 2}
                  width={width}
                  height={ROW - 4}
                  fill={at === 0 ? colour : "var(--color-sheet)"}
                  stroke={colour}
                  strokeWidth="1.5"
                />
                <text x={LABEL + width + 8} y={y + 13} fontSize="12" fill="var(--color-ink)">
                  {show(of(way))}
                  <tspan fill="var(--color-iron)" fontSize="11">
                    {"  "}
                    {way.process === "sponge_dough" ? "sponge" : "straight"}
                  </tspan>
                </text>
              </g>
            );
          });
        })}
      </svg>
    </figure>
  );
}
