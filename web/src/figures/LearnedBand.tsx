import { scaleLinear } from "d3-scale";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { ChartAxis, marksOf } from "./ChartAxis";
import { spread } from "./scale";

const WIDTH = 1000;
const HEIGHT = 260;
const EDGE = { left: 56, right: 150, top: 14, bottom: 26 };
/** A learned number: a band that narrows, a step a batch; what was left out as hollow marks. */
export function LearnedBand({ learned }: { learned: Schemas["LearnedView"] }) {
  const format = useFormat();
  const { offer, unit, in_use } = learned;
  const steps = offer.history;
  const beliefs = [offer.prior, ...steps.map((step) => step.believed)];
  const x = scaleLinear([0, Math.max(1, steps.length)], [EDGE.left, WIDTH - EDGE.right]);
  const y = scaleLinear(
    spread([offer.prior.low, offer.prior.high, ...beliefs.flatMap((one) => [one.low, one.high])]),
    [HEIGHT - EDGE.bottom, EDGE.top],
  );
  const edge = (of: "low" | "typical" | "high") =>
    beliefs.map((one, at) => `${x(at)} ${y(one[of])}`);
  return (
    <figure
      aria-label={`${learned.label}, batch by batch`}
      className="overflow-x-auto"
      tabIndex={0}
    >
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block w-full min-w-xl">
        <ChartAxis
          marks={marksOf(y, 5, (tick) => format.plain(tick))}
          left={EDGE.left - 8}
          across={[EDGE.left, WIDTH - EDGE.right]}
        />
        <path
          d={`M${edge("high").join("L")}L${edge("low").reverse().join("L")}Z`}
          fill="var(--color-water)"
          fillOpacity="0.16"
        />
        <path
          d={`M${edge("typical").join("L")}`}
          fill="none"
          stroke="var(--color-water)"
          strokeWidth="2.5"
        />
        {steps.map((step, at) =>
          step.value == null ? null : (
            <circle
              key={step.batch}
              cx={x(at + 1)}
              cy={Math.min(HEIGHT - EDGE.bottom, Math.max(EDGE.top, y(step.value)))}
              r="3.5"
              fill={step.left_out ? "var(--color-sheet)" : "var(--color-ink)"}
              stroke="var(--color-ink)"
            >
              <title>{`${format.moment(step.at)}: ${format.figure(step.value, unit)}${step.left_out ? `, left out: ${step.left_out}` : ""}`}</title>
            </circle>
          ),
        )}
        <line
          x1={WIDTH - EDGE.right + 10}
          x2={WIDTH - EDGE.right + 10}
          y1={y(offer.low)}
          y2={y(offer.high)}
          stroke="var(--color-water)"
          strokeWidth="6"
        />
        <text
          x={WIDTH - EDGE.right + 22}
          y={y(offer.mean) + 6}
          fontSize="18"
          fontWeight="650"
          fill="var(--color-ink)"
        >
          {format.figure(offer.mean, unit)}
        </text>
        {in_use != null && (
          <text
            x={WIDTH - EDGE.right + 22}
            y={y(in_use) + (in_use > offer.mean ? -14 : 26)}
            fontSize="12"
            fill="var(--color-crust)"
          >
            in use {format.figure(in_use, unit)}
          </text>
        )}
        <text x={EDGE.left} y={HEIGHT - 6} fontSize="12" fill="var(--color-iron)">
          before any batch
        </text>
        <text
          x={WIDTH - EDGE.right}
          y={HEIGHT - 6}
          fontSize="12"
          textAnchor="end"
          fill="var(--color-iron)"
        >
          after {format.count(offer.used, "batch", "batches")}
        </text>
      </svg>
    </figure>
  );
}
