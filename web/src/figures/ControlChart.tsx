import { scaleLinear } from "d3-scale";
import { useRef, useState, type PointerEvent } from "react";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { spread } from "./scale";
import { ChartAxis, marksOf } from "./ChartAxis";
import { ControlLimits } from "./ControlLimits";

const WIDTH = 1000;
const HEIGHT = 330;
/** What the name of a month takes. */
const MONTH_WIDTH = 70;
const EDGE = { left: 56, right: 96, top: 16, bottom: 30 };

interface Props {
  view: Schemas["DriftView"];
  /** The selected lot. */
  lotId: string | null;
  onLot: (lotId: string) => void;
  onBrush: (from: string, to: string) => void;
}

/** A property over lots: values, moving average, limits, runs; drag across to look at a period. */
export function ControlChart({ view, lotId, onLot, onBrush }: Props) {
  const format = useFormat();
  const sheet = useRef<SVGSVGElement>(null);
  const [brush, setBrush] = useState<[number, number] | null>(null);
  const { drift, lots, limit } = view;
  if (!drift) return null;
  const { points, lower, upper } = drift;
  const wanted = [limit?.min, limit?.max].filter((one) => typeof one === "number");
  const x = scaleLinear([-0.5, points.length - 0.5], [EDGE.left, WIDTH - EDGE.right]);
  const y = scaleLinear(spread([lower, upper, ...wanted, ...points.map((point) => point.value)]), [
    HEIGHT - EDGE.bottom,
    EDGE.top,
  ]);
  const at = (event: PointerEvent) => {
    const box = sheet.current?.getBoundingClientRect();
    return box ? ((event.clientX - box.left) / box.width) * WIDTH : 0;
  };
  const months = lots
    .map((lot, i) => ({ i, month: lot.received_at.slice(0, 7) }))
    .filter(({ month }, i, all) => i > 0 && month !== all[i - 1]?.month)
    .reduce<{ i: number; month: string }[]>((kept, one) => {
      const last = kept.at(-1);
      return last && x(one.i) - x(last.i) < MONTH_WIDTH ? kept : [...kept, one];
    }, []);
  const top = Math.max(EDGE.top, limit?.max == null ? EDGE.top : y(limit.max));
  const bottom = Math.min(
    HEIGHT - EDGE.bottom,
    limit?.min == null ? HEIGHT - EDGE.bottom : y(limit.min),
  );
  return (
    <svg
      ref={sheet}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="block w-full min-w-2xl touch-pan-x touch-pan-y select-none"
      role="img"
      aria-label={`${view.label} over ${points.length} lots; the table below has the figures`}
      onPointerDown={(event) => setBrush([at(event), at(event)])}
      onPointerMove={(event) => brush && setBrush([brush[0], at(event)])}
      onPointerLeave={() => setBrush(null)}
      onPointerUp={() => {
        const [from, to] = [...(brush ?? [0, 0])].sort((a, b) => a - b) as [number, number];
        setBrush(null);
        const inside = lots.filter((_, i) => x(i) >= from && x(i) <= to);
        const [first, last] = [inside[0], inside.at(-1)];
        if (to - from > 12 && inside.length > 2 && first && last)
          onBrush(first.received_at, last.received_at);
      }}
    >
      {limit && wanted.length > 0 && (
        <rect
          x={EDGE.left}
          width={WIDTH - EDGE.left - EDGE.right}
          y={top}
          height={Math.max(0, bottom - top)}
          fill="var(--color-moss)"
          opacity="0.13"
        />
      )}
      <ChartAxis marks={marksOf(y, 6, (tick) => format.plain(tick))} left={EDGE.left - 8} />
      <ChartAxis
        marks={months.map(({ i, month }) => ({ at: x(i), word: format.month(`${month}-15`) }))}
        foot={HEIGHT - 10}
      />
      <ControlLimits drift={drift} x={x} y={y} across={[EDGE.left, WIDTH - EDGE.right]} />
      {points.map((point, i) => {
        const lot = lots[i];
        if (!lot) return null;
        const stop = point.beyond;
        return (
          <g key={lot.id} className="cursor-pointer" onClick={() => onLot(lot.id)}>
            <title>{`${lot.code}: ${format.plain(Number(point.value.toPrecision(4)))} ${view.unit}`}</title>
            <circle
              cx={x(i)}
              cy={y(point.value)}
              r={stop ? 6 : lot.id === lotId ? 6 : 3.6}
              fill={
                point.run && !stop
                  ? "var(--color-crust)"
                  : stop
                    ? "var(--color-sheet)"
                    : "var(--color-ink)"
              }
              stroke={stop ? "var(--color-stop)" : lot.id === lotId ? "var(--color-crust)" : "none"}
              strokeWidth="3"
            />
            {stop && (
              <text
                x={x(i) + (i > points.length * 0.8 ? -10 : 10)}
                y={y(point.value) + 4}
                textAnchor={i > points.length * 0.8 ? "end" : "start"}
                fontSize="13"
                fontWeight="600"
                fill="var(--color-stop)"
              >
                {lot.code}
              </text>
            )}
          </g>
        );
      })}
      {brush && (
        <rect
          x={Math.min(...brush)}
          width={Math.abs(brush[1] - brush[0])}
          y={EDGE.top}
          height={HEIGHT - EDGE.top - EDGE.bottom}
          fill="var(--color-water)"
          opacity="0.15"
        />
      )}
    </svg>
  );
}
