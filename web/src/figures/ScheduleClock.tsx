import { scaleTime } from "d3-scale";
import type { Schemas } from "../api/client";
import { addDays, set, startOfDay, subDays } from "date-fns";
import { onTheWall } from "../units/clock";
import { useFormat } from "../units/format";
import { fitted, thinned } from "./scale";
import { TimeAxis } from "./TimeAxis";

const WIDTH = 1000;
const EDGE = 26;
const HANDS = { top: 34, height: 34 };
const RISE = { top: 96, bottom: 190 };
const FOOT = 216;
/** The top of the temperature beneath, °C. */
const WARMEST = 40;
const HOUR_MS = 3_600_000;
/** Narrower than this a stage has no room for its name. */
const NAMED = 58;

interface Props {
  plan: Schemas["SchedulePlan"];
  rise: Schemas["Rise"] | null | undefined;
  mixesH: number;
  /** Refused hours, as minutes of a day. */
  closed: { from: number; to: number }[];
}

/** A dough's stages on the clock, the closed hours behind them, its rise beneath. */
export function ScheduleClock({ plan, rise, mixesH, closed }: Props) {
  const format = useFormat();
  const start = Date.parse(plan.starts_at);
  const end = Date.parse(plan.stages.at(-1)?.ends_at ?? plan.out_at);
  const x = scaleTime([start, end], [EDGE, WIDTH - EDGE]);
  const series = thinned(rise?.series ?? [], 400);
  const top = Math.max(50, ...series.map((point) => point.rise_pct));
  const y = (pct: number) => RISE.bottom - (pct / top) * (RISE.bottom - RISE.top);
  const line = (of: (point: Schemas["FermentationPoint"]) => number) =>
    series
      .map((point, at) => {
        const when = start + (mixesH + point.t_h) * HOUR_MS;
        return `${at ? "L" : "M"}${x(when)} ${of(point)}`;
      })
      .join("");
  const curve = line((point) => y(point.rise_pct));
  const warmth = line(({ dough_c }) => y(top * Math.min(1, Math.max(0, dough_c / WARMEST))));
  return (
    <figure aria-label="Schedule by the clock" className="overflow-x-auto">
      <svg viewBox={`0 0 ${WIDTH} ${FOOT + 20}`} className="block w-full min-w-2xl" aria-hidden>
        {stretches(start, end, closed).map(([from, to]) => (
          <rect
            key={from}
            x={x(from)}
            width={x(to) - x(from)}
            y="0"
            height={FOOT}
            fill="var(--color-hair)"
            opacity="0.55"
          />
        ))}
        {plan.stages.map((stage) => {
          const [from, to] = [x(Date.parse(stage.starts_at)), x(Date.parse(stage.ends_at))];
          return (
            <g key={stage.starts_at + stage.label}>
              <rect
                x={from}
                width={Math.max(1.5, to - from)}
                y={HANDS.top}
                height={HANDS.height}
                fill={stage.hands ? "var(--color-ink)" : "var(--color-sheet)"}
                stroke="var(--color-ink)"
                strokeDasharray={stage.added ? "5 3" : undefined}
              />
              {!stage.hands &&
                stage.folds.map((set) => (
                  <rect
                    key={set.starts_at}
                    x={x(Date.parse(set.starts_at))}
                    width={Math.max(2.5, x(Date.parse(set.ends_at)) - x(Date.parse(set.starts_at)))}
                    y={HANDS.top}
                    height={HANDS.height}
                    fill="var(--color-ink)"
                  />
                ))}
              {to - from > NAMED && (
                <text
                  x={(from + to) / 2}
                  y={HANDS.top - 8}
                  fontSize="12"
                  textAnchor="middle"
                  fill="var(--color-ink)"
                >
                  {fitted(stage.label, to - from)}
                </text>
              )}
            </g>
          );
        })}
        <path d={curve} fill="none" stroke="var(--color-moss)" strokeWidth="2.5" />
        <path
          d={warmth}
          fill="none"
          stroke="var(--color-crust)"
          strokeWidth="1.5"
          strokeDasharray="5 3"
        />
        {series.length > 0 && (
          <text x={EDGE} y={RISE.top - 6} fontSize="12" fill="var(--color-moss)">
            rise, to {format.number(top, 0)} %;{" "}
            <tspan fill="var(--color-crust)">
              dough temperature, dashed, 0 to {format.temperature(WARMEST, 0)}
            </tspan>
          </text>
        )}
        <TimeAxis x={x} y={FOOT - 14} />
      </svg>
    </figure>
  );
}

/** The closed hours between two moments, by the plant's clock. */
export function stretches(
  start: number,
  end: number,
  closed: { from: number; to: number }[],
): [number, number][] {
  const all: [number, number][] = [];
  let day = subDays(startOfDay(onTheWall(start)), 1);
  for (; +day <= end; day = addDays(day, 1)) {
    for (const { from, to } of closed) {
      const at = (minutes: number, days: number) =>
        +set(addDays(day, days), { hours: Math.floor(minutes / 60), minutes: minutes % 60 });
      const [begins, ends] = [at(from, 0), at(to, from <= to ? 0 : 1)];
      if (ends > start && begins < end) all.push([Math.max(begins, start), Math.min(ends, end)]);
    }
  }
  return all;
}
