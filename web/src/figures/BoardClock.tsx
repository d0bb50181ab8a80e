import { scaleTime } from "d3-scale";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { LOOKS, StagePatterns } from "./StagePatterns";
import { TimeAxis } from "./TimeAxis";

const WIDTH = 1000;
const LEFT = 190;
const RIGHT = 8;
const ROW = 40;
const HEAD = 18;
const HOUR_MS = 3_600_000;
/** So many hours before now and after it are seen. */
const [BEFORE_H, AFTER_H] = [4, 8];

/** A line's clock: now stands still, doughs pass beneath it; planned as outlines, actual as fills. */
export function BoardClock({ line, now }: { line: Schemas["BoardLine"]; now: number }) {
  const format = useFormat();
  const x = scaleTime([now - BEFORE_H * HOUR_MS, now + AFTER_H * HOUR_MS], [LEFT, WIDTH - RIGHT]);
  const height = HEAD + line.batches.length * ROW;
  const box = (from: number, to: number) => {
    const [left, right] = [Math.max(LEFT, x(from)), Math.min(WIDTH - RIGHT, x(to))];
    return { x: left, width: Math.max(0, right - left) };
  };
  return (
    <figure aria-label={`${line.line} by the clock`} className="overflow-x-auto">
      <svg viewBox={`0 0 ${WIDTH} ${height + 26}`} className="block w-full min-w-2xl">
        <StagePatterns />
        {line.batches.map((batch, at) => {
          const y = HEAD + at * ROW;
          const late = batch.next && batch.next.late_min > 1 && batch.state !== "held";
          return (
            <g key={batch.id}>
              <Link to={`/batches/${batch.id}/run`} aria-label={`${batch.product}, ${batch.state}`}>
                <rect x="0" y={y} width={LEFT - 8} height={ROW} fill="transparent" />
                <text
                  x="0"
                  y={y + 17}
                  fontSize="14"
                  fontWeight="650"
                  fill={batch.state === "held" ? "var(--color-stop)" : "var(--color-ink)"}
                  textDecoration="underline"
                >
                  {batch.product}
                </text>
                <text
                  x="0"
                  y={y + 32}
                  fontSize="12"
                  fill={
                    batch.state === "held"
                      ? "var(--color-stop)"
                      : late
                        ? "var(--color-crust)"
                        : "var(--color-iron)"
                  }
                >
                  {batch.state}
                  {late &&
                    batch.next &&
                    `, ${format.minutes(Math.round(batch.next.late_min))} late`}
                  {batch.state === "planned" && !late && ` ${format.time(batch.planned_for)}`}
                </text>
              </Link>
              {batch.stages.map((stage, i) => {
                const time = batch.times[i];
                if (!time) return null;
                const begun = time.begun_at != null;
                const planned = box(Date.parse(time.planned_begin), Date.parse(time.planned_end));
                const actual = box(Date.parse(time.expected_begin), Date.parse(time.expected_end));
                return (
                  <g key={stage.stage}>
                    <rect
                      {...planned}
                      y={y + 4}
                      height={ROW - 12}
                      fill="none"
                      stroke="var(--color-iron)"
                      strokeDasharray="3 2"
                      strokeWidth="0.8"
                    />
                    <rect
                      {...actual}
                      y={y + 9}
                      height={ROW - 22}
                      fill={begun ? LOOKS[stage.role].fill : "var(--color-sheet)"}
                      stroke={time.beyond_limit ? "var(--color-stop)" : LOOKS[stage.role].stroke}
                      strokeWidth={time.beyond_limit ? 2.5 : 1}
                      fillOpacity={begun ? 1 : 0.4}
                    >
                      <title>
                        {`${batch.product}, ${stage.label}: ${format.time(time.expected_begin)} to ${format.time(time.expected_end)}`}
                      </title>
                    </rect>
                  </g>
                );
              })}
            </g>
          );
        })}
        <line
          x1={x(now)}
          x2={x(now)}
          y1={HEAD - 6}
          y2={height}
          stroke="var(--color-stop)"
          strokeWidth="2"
        />
        <text x={x(now)} y={HEAD - 8} fontSize="12" textAnchor="middle" fill="var(--color-stop)">
          now
        </text>
        <TimeAxis x={x} y={height} />
      </svg>
    </figure>
  );
}
