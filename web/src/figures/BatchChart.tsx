import { scaleLinear } from "d3-scale";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { ChartAxis, marksOf } from "./ChartAxis";
import { ControlLimits } from "./ControlLimits";
import { spread } from "./scale";

const WIDTH = 1000;
const HEIGHT = 340;
const EDGE = { left: 60, right: 96, top: 26, bottom: 30 };

interface Props {
  chart: Schemas["BatchChart"];
  onBatch: (id: string) => void;
}

/** A figure over batches: limits, what is beyond them, and a rule wherever the lot changed. */
export function BatchChart({ chart, onBatch }: Props) {
  const format = useFormat();
  const { drift, batches, label, unit } = chart;
  if (!drift) return null;
  const { points, lower, upper } = drift;
  const x = scaleLinear([-0.5, points.length - 0.5], [EDGE.left, WIDTH - EDGE.right]);
  const y = scaleLinear(spread([lower, upper, ...points.map((point) => point.value)]), [
    HEIGHT - EDGE.bottom,
    EDGE.top,
  ]);
  // Of many lot changes only some have room for their code.
  const changes = batches.flatMap((batch, at) => (batch.new_lot ? [{ at, lot: batch.lot }] : []));
  const every = Math.ceil(changes.length / 9) || 1;
  return (
    <figure
      aria-label={`${label} over ${batches.length} batches`}
      className="overflow-x-auto"
      tabIndex={0}
    >
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block w-full min-w-2xl">
        {changes.map(({ at, lot }, number) => (
          <g key={at}>
            <line
              x1={x(at - 0.5)}
              x2={x(at - 0.5)}
              y1={EDGE.top - 4}
              y2={HEIGHT - EDGE.bottom}
              stroke="var(--color-hair)"
            />
            {number % every === 0 && (
              <text x={x(at - 0.5) + 3} y={EDGE.top - 8} fontSize="11" fill="var(--color-iron)">
                {lot}
              </text>
            )}
          </g>
        ))}
        <ControlLimits drift={drift} x={x} y={y} across={[EDGE.left, WIDTH - EDGE.right]} />
        {points.map((point, at) => {
          const batch = batches[at];
          if (!batch) return null;
          const odd = point.beyond || point.run;
          return (
            <circle
              key={batch.id}
              cx={x(at)}
              cy={y(point.value)}
              r={point.beyond ? 5 : 3}
              fill={odd ? "var(--color-stop)" : "var(--color-ink)"}
              className="cursor-pointer"
              onClick={() => onBatch(batch.id)}
            >
              <title>{`${format.moment(batch.planned_for)}, lot ${batch.lot}: ${format.figure(point.value, unit)}`}</title>
            </circle>
          );
        })}
        <ChartAxis marks={marksOf(y, 6, (tick) => format.plain(tick))} left={EDGE.left - 8} />
        <text x={EDGE.left} y={HEIGHT - 8} fontSize="12" fill="var(--color-iron)">
          {batches[0] && format.date(batches[0].planned_for)}
        </text>
        <text
          x={WIDTH - EDGE.right}
          y={HEIGHT - 8}
          fontSize="12"
          textAnchor="end"
          fill="var(--color-iron)"
        >
          {format.date(batches.at(-1)?.planned_for ?? new Date().toISOString())}; the line is the
          moving average, each rule above a new lot
        </text>
      </svg>
    </figure>
  );
}
