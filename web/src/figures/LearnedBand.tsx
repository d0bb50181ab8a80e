import { scaleLinear } from "d3-scale";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { ChartAxis, marksOf } from "./ChartAxis";
import { spread } from "./scale";

const WIDTH = 1000;
const HEIGHT = 260;
const EDGE = { left: 56, right: 150, top: 14, bottom: 26 };
/** Nine in ten lie within so many σ. */
const NINE_TENTHS = 1.645;

/** A learned number: a band that narrows, a step a batch; what was left out as hollow marks. */
export function LearnedBand({ learned }: { learned: Schemas["LearnedView"] }) {
  const format = useFormat();
  const { offer, unit, in_use } = learned;
  const steps = offer.history;
  const begin = { mean: offer.prior.mean, sd: offer.prior.sd };
  const beliefs = [begin, ...steps];
  const x = scaleLinear([0, Math.max(1, steps.length)], [EDGE.left, WIDTH - EDGE.right]);
  const values = steps.flatMap((step) => step.value ?? []);
  const y = scaleLinear(
    spread([
      begin.mean - NINE_TENTHS * begin.sd,
      begin.mean + NINE_TENTHS * begin.sd,
      ...values.filter((value) => Math.abs(value - begin.mean) < 5 * begin.sd),
    ]),
    [HEIGHT - EDGE.bottom, EDGE.top],
  );
  const edge = (sign: number) =>
    beliefs.map((one, at) => `${x(at)} ${y(one.mean + sign * NINE_TENTHS * one.sd)}`);
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
          d={`M${edge(1).join("L")}L${edge(-1).reverse().join("L")}Z`}
          fill="var(--color-water)"
          fillOpacity="0.16"
        />
        <path
          d={`M${beliefs.map((one, at) => `${x(at)} ${y(one.mean)}`).join("L")}`}
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
