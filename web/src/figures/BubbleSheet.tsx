import { scaleLinear } from "d3-scale";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { ChartGrid } from "./ChartGrid";

const WIDTH = 920;
const HEIGHT = 300;
const EDGE = { left: 44, right: 30, top: 20, bottom: 30 };

export interface DrawnBubble {
  l_mm: number[];
  p_mmh2o: number[];
}

interface Props {
  bubbles: DrawnBubble[];
  under?: DrawnBubble[] | undefined;
  read?: Schemas["AlveographAnswer"] | undefined;
  label: string;
}

/** Alveograph curves with their rupture, the means, and which was left out. */
export function BubbleSheet({ bubbles, under = [], read, label }: Props) {
  const format = useFormat();
  const all = [...bubbles, ...under];
  const x = scaleLinear(
    [0, Math.max(60, ...all.map((one) => one.l_mm.at(-1) ?? 0))],
    [EDGE.left, WIDTH - EDGE.right],
  );
  const y = scaleLinear(
    [0, Math.max(60, ...all.flatMap((one) => one.p_mmh2o)) + 8],
    [HEIGHT - EDGE.bottom, EDGE.top],
  );
  const path = (one: DrawnBubble) =>
    `M${one.l_mm.map((l, i) => `${x(l).toFixed(1)} ${y(one.p_mmh2o[i] ?? 0).toFixed(1)}`).join("L")}`;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block w-full" role="img" aria-label={label}>
      <ChartGrid x={x} y={y} width={WIDTH} height={HEIGHT} edge={EDGE} units={["mm", "mmH2O"]} />
      {under.map((one, at) => (
        <path
          key={at}
          d={path(one)}
          fill="none"
          stroke="var(--color-iron)"
          strokeDasharray="4 4"
          opacity="0.6"
        />
      ))}
      {bubbles.map((one, at) => {
        const bubble = read?.curves[at];
        const out = bubble?.left_out ?? false;
        return (
          <g key={at} stroke={out ? "var(--color-stop)" : "var(--color-ink)"}>
            <path
              d={path(one)}
              fill="none"
              strokeWidth="1.3"
              strokeDasharray={out ? "8 4" : undefined}
              opacity="0.85"
            />
            {bubble && (
              <>
                <circle
                  cx={x(bubble.l_mm)}
                  cy={y(bubble.rupture_mmh2o)}
                  r="4"
                  fill="var(--color-sheet)"
                  strokeWidth="1.6"
                />
                {out && (
                  <text
                    x={x(bubble.l_mm) + 8}
                    y={y(bubble.rupture_mmh2o) - 4}
                    fontSize="12.5"
                    stroke="none"
                    fill="var(--color-stop)"
                  >
                    curve {bubble.curve} left out
                  </text>
                )}
              </>
            )}
          </g>
        );
      })}
      {read && (
        <g fontSize="13" fontWeight="600" fill="var(--color-water)" stroke="var(--color-water)">
          <line x1={x(read.l_mm)} x2={x(read.l_mm)} y1={EDGE.top} y2={HEIGHT - EDGE.bottom} />
          <text x={x(read.l_mm) - 6} y={EDGE.top + 12} textAnchor="end" stroke="none">
            L {format.number(read.l_mm, 0)}
          </text>
          <line x1={EDGE.left} x2={x(40)} y1={y(read.p_mmh2o)} y2={y(read.p_mmh2o)} />
          <text x={x(40) + 4} y={y(read.p_mmh2o) + 4} stroke="none">
            P {format.number(read.p_mmh2o, 0)}
          </text>
        </g>
      )}
    </svg>
  );
}
