import { scaleLinear } from "d3-scale";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";

const WIDTH = 640;
const TOP = 18;
const BAR = 22;
const FOOT = 18;
const MOST = 1.7;

/** What mixing, hydration and gas bring to a dough's maturity, on the scale it is judged by. */
export function MaturityFigure({ maturity }: { maturity: Schemas["DoughMaturity"] }) {
  const format = useFormat();
  const x = scaleLinear([0, Math.max(MOST, maturity.maturity * 1.05)], [0, WIDTH]);
  const [young, ripe, past] = maturity.from as [number, number, number];
  const parts = [
    ["mixing", maturity.work, "var(--color-crust)"],
    ["hydration", maturity.hydration, "var(--color-water)"],
    ["gas", maturity.gas, "var(--color-moss)"],
  ] as const;
  const zones = [
    ["green", 0, young],
    ["young", young, ripe],
    ["ripe", ripe, past],
    ["past", past, x.domain()[1] ?? MOST],
  ] as const;
  return (
    <figure
      aria-label={`Maturity ${format.number(maturity.maturity, 2)}: ${parts
        .map(([name, value]) => `${name} ${format.number(value, 2)}`)
        .join(", ")}`}
    >
      <svg viewBox={`0 0 ${WIDTH} ${TOP + BAR + FOOT}`} className="block w-full" aria-hidden>
        {zones.map(([name, from, to], at) => (
          <g key={name}>
            <rect
              x={x(from)}
              y={TOP - 4}
              width={x(to) - x(from)}
              height={BAR + 8}
              fill={at === 2 ? "var(--color-faint)" : "none"}
              stroke="var(--color-hair)"
            />
            <text
              x={x((from + to) / 2)}
              y={TOP - 8}
              fontSize="11"
              textAnchor="middle"
              fill="var(--color-iron)"
              fontWeight={maturity.verdict === name ? 700 : 400}
            >
              {name}
            </text>
          </g>
        ))}
        {parts.map(([name, value, colour], at) => {
          const before = parts.slice(0, at).reduce((sum, [, one]) => sum + one, 0);
          return (
            <g key={name}>
              <rect
                x={x(before)}
                y={TOP}
                width={Math.max(0, x(value) - 1)}
                height={BAR}
                fill={colour}
              />
              <text x={x(before) + 2} y={TOP + BAR + 15} fontSize="11" fill={colour}>
                {x(value) > 48 && `${name} ${format.number(value, 2)}`}
              </text>
            </g>
          );
        })}
      </svg>
    </figure>
  );
}
