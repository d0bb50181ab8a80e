import { scaleLinear } from "d3-scale";
import { useId } from "react";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { ChartAxis, marksOf } from "./ChartAxis";
import { DraggedMark } from "./DraggedMark";
import { Hatch } from "./Hatch";

const WIDTH = 1000;
const HEIGHT = 380;
const EDGE = { left: 60, right: 150, top: 34, bottom: 34 };

interface Props {
  found: Schemas["ReadBake"];
  /** Moves a crossing of the slowest core; left out where nobody may. */
  onMove?: ((crossing: Schemas["Crossing"], minute: number) => void) | undefined;
}

/** Probes of a bake, minutes below and shares of the bake above; the slowest strong, its crossings marked. */
export function BakeTraceFigure({ found, onMove }: Props) {
  const format = useFormat();
  const late = useId();
  const { read, bake, earlier, levels } = found;
  const crossings = [
    ["yeast killed", levels.yeast_kill_c, "yeast_kill_min", "yeast_kill"],
    ["gelatinised", levels.gelatinised_c, "gelatinised_min", "gelatinised"],
    ["arrival", levels.arrival_c, "arrival_min", "arrival"],
  ] as const;
  const last = Math.max(bake.bake_min, found.t_min.at(-1) ?? 0);
  const x = scaleLinear([0, last], [EDGE.left, WIDTH - EDGE.right]);
  const y = scaleLinear([20, 102], [HEIGHT - EDGE.bottom, EDGE.top]);
  const path = (minutes: number[], core: number[]) => {
    const points = core.map(
      (c, at) =>
        `${x(Math.min(last, minutes[at] ?? 0)).toFixed(1)} ${y(Math.max(20, c)).toFixed(1)}`,
    );
    return `M${points.join("L")}`;
  };
  const share = (pct: number) => x((bake.bake_min * pct) / 100);
  const target = share(read.target_arrival_pct);
  const slowest = read.probes.find((probe) => probe.name === read.slowest);
  const shares = [0, 20, 40, 60, 80, 100];
  return (
    <figure
      aria-label={`Core temperatures of ${bake.product}`}
      className="mt-3 overflow-x-auto"
      tabIndex={0}
    >
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="block w-full min-w-xl touch-pan-y select-none"
      >
        <defs>
          <Hatch id={late} every={6} stroke={1.4} colour="var(--color-crust)" />
        </defs>
        <rect
          x={target}
          width={Math.max(0, share(100) - target)}
          y={y(levels.arrival_c) - 14}
          height={28}
          fill={`url(#${late})`}
        />
        <ChartAxis
          marks={marksOf(y, 6, (tick) => format.temperature(tick, 0))}
          left={EDGE.left - 8}
          across={[EDGE.left, WIDTH - EDGE.right]}
        />
        <ChartAxis marks={marksOf(x, 10, (tick) => format.plain(tick))} foot={HEIGHT - 14} />
        <text x={WIDTH - EDGE.right + 16} y={HEIGHT - 14} fontSize="12" fill="var(--color-iron)">
          min
        </text>
        {shares.map((pct) => (
          <g key={pct} fill="var(--color-iron)" fontSize="12">
            <line
              x1={share(pct)}
              x2={share(pct)}
              y1={EDGE.top - 6}
              y2={EDGE.top}
              stroke="var(--color-iron)"
            />
            <text x={share(pct)} y={EDGE.top - 12} textAnchor="middle">
              {format.percent(pct, 0)}
            </text>
          </g>
        ))}
        <text x={WIDTH - EDGE.right + 24} y={EDGE.top - 12} fontSize="12" fill="var(--color-iron)">
          of the bake
        </text>
        {crossings.map(([word, level]) => (
          <g key={word}>
            <line
              x1={EDGE.left}
              x2={WIDTH - EDGE.right}
              y1={y(level)}
              y2={y(level)}
              stroke="var(--color-iron)"
              strokeDasharray="2 4"
            />
            <text x={WIDTH - EDGE.right + 8} y={y(level) + 4} fontSize="12" fill="var(--color-ink)">
              {word} {format.temperature(level, 0)}
            </text>
          </g>
        ))}
        {earlier.map((one) => (
          <path
            key={one.bake.id}
            d={path(one.t_min, one.core_c)}
            fill="none"
            stroke="var(--color-hair)"
            strokeWidth="1.5"
          >
            <title>{`${format.moment(one.bake.planned_for)}, its slowest core`}</title>
          </path>
        ))}
        {found.probes.map((probe) => (
          <path
            key={probe.name}
            d={path(found.t_min, probe.core_c)}
            fill="none"
            stroke={probe.name === read.slowest ? "var(--color-ink)" : "var(--color-iron)"}
            strokeWidth={probe.name === read.slowest ? 2.6 : 0.8}
          >
            <title>{probe.name}</title>
          </path>
        ))}
        {crossings.map(([word, level, key, crossing]) => {
          const minute = slowest?.[key];
          return minute == null ? null : (
            <DraggedMark
              key={word}
              label={`${word}, minutes`}
              minute={minute}
              end={last}
              x={x}
              width={WIDTH}
              onMove={onMove && ((to) => onMove(crossing, to))}
            >
              <rect
                x={x(minute) - 11}
                y={y(level) - 14}
                width="22"
                height="28"
                fill="transparent"
              />
              <line
                x1={x(minute)}
                x2={x(minute)}
                y1={y(level) - 12}
                y2={y(level) + 12}
                stroke="var(--color-crust)"
                strokeWidth="2"
              />
              <text
                x={x(minute) - 6}
                y={y(level) - 6}
                fontSize="13"
                fontWeight="600"
                textAnchor="end"
                fill="var(--color-crust)"
                stroke="var(--color-paper)"
                strokeWidth="4"
                paintOrder="stroke"
              >
                {format.minutes(Number(minute.toFixed(1)))},{" "}
                {format.percent((100 * minute) / bake.bake_min, 0)}
              </text>
            </DraggedMark>
          );
        })}
        <line
          x1={share(100)}
          x2={share(100)}
          y1={EDGE.top}
          y2={HEIGHT - EDGE.bottom}
          stroke="var(--color-ink)"
        />
        <line
          x1={target}
          x2={target}
          y1={y(levels.arrival_c) - 18}
          y2={y(levels.arrival_c) + 18}
          stroke="var(--color-ink)"
        />
        <text
          x={target}
          y={y(levels.arrival_c) + 32}
          fontSize="12"
          textAnchor="middle"
          fill="var(--color-ink)"
        >
          target {format.percent(read.target_arrival_pct, 0)}
        </text>
      </svg>
      <figcaption className="text-sm text-iron">
        The strong line is the slowest core, the thin ones the other probes
        {earlier.length > 0 && ", the pale ones the slowest cores of earlier bakes"}. Hatched: later
        than the target.{onMove && " A mark is dragged, or moved by the arrow keys."}
      </figcaption>
    </figure>
  );
}
