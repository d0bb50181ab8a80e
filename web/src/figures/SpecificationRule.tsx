import { scaleLinear } from "d3-scale";
import { useId } from "react";
import type { Schemas } from "../api/client";
import { VERDICT } from "../shell/verdict";
import { useFormat } from "../units/format";
import { Hatch } from "./Hatch";

const WIDTH = 300;
const MARGIN = 14;
const LINE = 15;

/** A ruled scale: the wanted zone, its borderline fringe, this lot, and the faint run of earlier ones. */
export function SpecificationRule({
  rule,
  earlier,
}: {
  rule: Schemas["RequirementCheck"];
  earlier: number[];
}) {
  const id = useId();
  const format = useFormat();
  const { min, max, target, value, fringe_min, fringe_max, verdict } = rule;
  const known = [min, max, target, value, ...earlier].filter((one) => typeof one === "number");
  const low = Math.min(...known, (min ?? Infinity) - fringe_min);
  const high = Math.max(...known, (max ?? -Infinity) + fringe_max);
  const pad = (high - low || Math.abs(high) || 1) * 0.12;
  const x = scaleLinear([low - pad, high + pad], [MARGIN, WIDTH - MARGIN]);
  const ticks = x.ticks(5);
  const from = x(min ?? low - pad);
  const to = x(max ?? high + pad);
  const fringe = (limit: number, width: number) => (
    <rect
      x={x(limit - width)}
      width={x(limit + width) - x(limit - width)}
      y={LINE - 6}
      height={12}
      fill={`url(#${id})`}
    />
  );
  const message = `${rule.label}: ${value == null ? "not known" : format.plain(value)} ${rule.unit}, ${rule.message}`;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 34`}
      className="block w-full min-w-60"
      role="img"
      aria-label={message}
    >
      <defs>
        <Hatch id={id} every={4} stroke={1.6} colour="var(--color-moss)" />
      </defs>
      <rect
        x={from}
        width={Math.max(0, to - from)}
        y={LINE - 6}
        height={12}
        fill="var(--color-moss)"
        opacity="0.22"
      />
      {min != null && fringe_min > 0 && fringe(min, fringe_min)}
      {max != null && fringe_max > 0 && fringe(max, fringe_max)}
      <line
        x1={MARGIN}
        x2={WIDTH - MARGIN}
        y1={LINE}
        y2={LINE}
        stroke="var(--color-iron)"
        strokeWidth="0.75"
      />
      {ticks.map((tick) => (
        <g key={tick}>
          <line
            x1={x(tick)}
            x2={x(tick)}
            y1={LINE}
            y2={LINE + 7}
            stroke="var(--color-iron)"
            strokeWidth="0.75"
          />
          <text x={x(tick)} y={32} textAnchor="middle" fontSize="10.5" fill="var(--color-iron)">
            {format.plain(tick)}
          </text>
        </g>
      ))}
      {[min, max].map(
        (limit, at) =>
          limit != null && (
            <line
              key={at}
              x1={x(limit)}
              x2={x(limit)}
              y1={LINE - 7}
              y2={LINE + 7}
              stroke="var(--color-moss)"
              strokeWidth="2"
            />
          ),
      )}
      {target != null && (
        <path
          d={`M${x(target)} ${LINE - 7}l-4 -6h8z`}
          fill="none"
          stroke="var(--color-moss)"
          strokeWidth="1.2"
        />
      )}
      {earlier.map((one, at) => (
        <line
          key={at}
          x1={x(one)}
          x2={x(one)}
          y1={LINE - 3}
          y2={LINE + 3}
          stroke="var(--color-ink)"
          opacity="0.35"
        />
      ))}
      {value != null && (
        <circle
          cx={x(value)}
          cy={LINE}
          r="4.5"
          className={VERDICT[verdict].colour}
          fill={verdict === "in" ? "currentColor" : "var(--color-sheet)"}
          stroke="currentColor"
          strokeWidth="2.5"
        />
      )}
    </svg>
  );
}
