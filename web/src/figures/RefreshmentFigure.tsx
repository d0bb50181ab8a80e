import { scaleLinear } from "d3-scale";
import type { Schemas } from "../api/client";
import { momentOf } from "../units/clock";
import { useFormat } from "../units/format";
import { ChartAxis, marksOf } from "./ChartAxis";

const WIDTH = 1000;
const HEIGHT = 200;
const EDGE = 34;
const FOOT = 172;
/** A starter holds no more, %: beyond it falls back, which no model here draws. */
const FALLEN = 260;
const HOUR_MS = 3_600_000;

interface Props {
  feed: Schemas["Refreshment"];
  /** When it was fed, as a browser's field keeps it. */
  feedAt: string;
}

/** A fed starter's rise on the clock, and the hours it is at its best. */
export function RefreshmentFigure({ feed, feedAt }: Props) {
  const format = useFormat();
  const end = feed.series.at(-1)?.t_h ?? 1;
  const top = Math.min(FALLEN, Math.max(...feed.series.map((point) => point.rise_pct), 100));
  const x = scaleLinear([0, end], [EDGE, WIDTH - EDGE]);
  const y = scaleLinear([0, top], [FOOT, 18]);
  const clock = (h: number) =>
    format.time(new Date(momentOf(feedAt).getTime() + h * HOUR_MS).toISOString());
  const held = feed.series.filter((point) => point.rise_pct <= top);
  const curve = held
    .map((point, at) => `${at ? "L" : "M"}${x(point.t_h)} ${y(point.rise_pct)}`)
    .join("");
  return (
    <figure aria-label="The fed starter on the clock">
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block w-full" aria-hidden>
        {feed.ripe_h != null && feed.tired_h != null && (
          <>
            <rect
              x={x(feed.ripe_h)}
              width={x(feed.tired_h) - x(feed.ripe_h)}
              y={8}
              height={FOOT - 8}
              fill="var(--color-moss)"
              opacity="0.14"
            />
            <text x={x(feed.ripe_h) + 6} y={22} fontSize="13" fill="var(--color-moss)">
              at its best
            </text>
          </>
        )}
        <path d={curve} fill="none" stroke="var(--color-moss)" strokeWidth="2.5" />
        {held.length < feed.series.length && (
          <text x={x(held.at(-1)?.t_h ?? 0) + 12} y={34} fontSize="13" fill="var(--color-iron)">
            falls back
          </text>
        )}
        <line x1={EDGE} x2={WIDTH - EDGE} y1={FOOT} y2={FOOT} stroke="var(--color-ink)" />
        <text x={EDGE} y={14} fontSize="12" fill="var(--color-iron)">
          rise, to {format.number(top, 0)} %
        </text>
        <ChartAxis marks={marksOf(x, 10, clock)} foot={FOOT + 18} />
      </svg>
    </figure>
  );
}
