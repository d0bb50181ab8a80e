import { scaleLinear } from "d3-scale";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { ChartGrid } from "./ChartGrid";
import { DraggedMark } from "./DraggedMark";
import { thinned } from "./scale";

const WIDTH = 920;
const HEIGHT = 330;
const EDGE = { left: 44, right: 28, top: 22, bottom: 30 };

/** What the pen drew. */
export interface Drawn {
  t_s: number[];
  fu: number[];
  band_fu?: number[] | undefined;
}

interface Props {
  drawn: Drawn;
  /** Another lot's curve beneath. */
  under?: Drawn | undefined;
  read?: Schemas["FarinographAnswer"] | undefined;
  marks?: Schemas["Mark"][];
  onMove?: (mark: string, minute: number) => void;
  label: string;
}

/** A farinogram with its readings where they were read; marks can be dragged or moved by arrows. */
export function CurveSheet({ drawn, under, read, marks = [], onMove, label }: Props) {
  const format = useFormat();
  const end = Math.max(...[drawn, under].map((one) => (one?.t_s.at(-1) ?? 0) / 60), 1);
  const top = Math.max(600, ...thinned(drawn.fu, 400)) + 40;
  const x = scaleLinear([0, end], [EDGE.left, WIDTH - EDGE.right]);
  const y = scaleLinear([0, top], [HEIGHT - EDGE.bottom, EDGE.top]);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="block w-full min-w-2xl touch-pan-y select-none"
      role="group"
      aria-label={label}
    >
      <ChartGrid x={x} y={y} width={WIDTH} height={HEIGHT} edge={EDGE} units={["min", "FU"]} />
      {under && (
        <path
          d={line(under, x, y)}
          fill="none"
          stroke="var(--color-iron)"
          strokeDasharray="5 4"
          opacity="0.8"
        />
      )}
      {drawn.band_fu && drawn.band_fu.length > 0 && (
        <path d={band(drawn, x, y)} fill="var(--color-crust)" opacity="0.16" />
      )}
      <path d={line(drawn, x, y)} fill="none" stroke="var(--color-ink)" strokeWidth="1.4" />
      {read && (
        <line
          x1={EDGE.left}
          x2={WIDTH - EDGE.right}
          y1={y(read.line_fu)}
          y2={y(read.line_fu)}
          stroke="var(--color-ink)"
          strokeDasharray="2 3"
        />
      )}
      {marks.map(({ mark, stands_min, moved }, at) => {
        if (stands_min == null) return null;
        return (
          <DraggedMark
            key={mark}
            label={`${mark}, minutes`}
            minute={stands_min}
            end={end}
            x={x}
            width={WIDTH}
            onMove={(minute) => onMove?.(mark, minute)}
          >
            <rect
              x={x(stands_min) - 11}
              y={EDGE.top}
              width="22"
              height={HEIGHT - EDGE.top - EDGE.bottom}
              fill="transparent"
              className="touch-none"
            />
            <line
              x1={x(stands_min)}
              x2={x(stands_min)}
              y1={EDGE.top}
              y2={HEIGHT - EDGE.bottom}
              stroke={moved ? "var(--color-crust)" : "var(--color-water)"}
              strokeWidth="1.5"
            />
            <text
              x={x(stands_min) + 5}
              y={EDGE.top + 10 + 15 * at}
              fontSize="13"
              fontWeight="600"
              stroke="var(--color-paper)"
              strokeWidth="4"
              paintOrder="stroke"
              fill={moved ? "var(--color-crust)" : "var(--color-water)"}
            >
              {mark} {format.number(stands_min)}
              {moved && " moved"}
            </text>
          </DraggedMark>
        );
      })}
    </svg>
  );
}

type Scale = (value: number) => number;

function points(drawn: Drawn): number[] {
  return thinned([...drawn.t_s.keys()], 1200);
}

function line(drawn: Drawn, x: Scale, y: Scale): string {
  const at = (i: number) =>
    `${x((drawn.t_s[i] ?? 0) / 60).toFixed(1)} ${y(drawn.fu[i] ?? 0).toFixed(1)}`;
  return `M${points(drawn).map(at).join("L")}`;
}

function band(drawn: Drawn, x: Scale, y: Scale): string {
  const edge = (sign: number) => (i: number) =>
    `${x((drawn.t_s[i] ?? 0) / 60).toFixed(1)} ${y(Math.max(0, (drawn.fu[i] ?? 0) + sign * (drawn.band_fu?.[i] ?? 0))).toFixed(1)}`;
  const all = points(drawn);
  return `M${all.map(edge(1)).join("L")}L${all.reverse().map(edge(-1)).join("L")}Z`;
}
