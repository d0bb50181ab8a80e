import { scaleLinear } from "d3-scale";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { fitted, spread, thinned } from "./scale";
import { ChartAxis, marksOf } from "./ChartAxis";

const WIDTH = 1000;
const HEIGHT = 360;
const EDGE = { left: 52, right: 28, top: 30 };
/** Where the rise ends and the temperature begins. */
const SPLIT = 232;
const FOOT = HEIGHT - 28;
/** Narrower than this a stage has no room for its name. */
const NAMED = 64;

interface Props {
  series: Schemas["FermentationPoint"][];
  stages: Schemas["RiseStage"][];
}

/** How a dough rises through its stages, its temperature beneath on the same hours. */
export function FermentationFigure({ series, stages }: Props) {
  const format = useFormat();
  const points = thinned(series, 400);
  const hours = series.at(-1)?.t_h ?? 1;
  const x = scaleLinear([0, hours], [EDGE.left, WIDTH - EDGE.right]);
  const top = Math.max(50, ...series.map((point) => point.rise_pct));
  const rise = scaleLinear([0, top * 1.08], [SPLIT, EDGE.top]);
  const warm = scaleLinear(spread(series.map((point) => point.dough_c)), [FOOT - 4, SPLIT + 26]);
  const [first = 0, second = 1] = warm.ticks(4);
  const step = second - first;
  const line = (y: (point: Schemas["FermentationPoint"]) => number) =>
    points.map((point, at) => `${at ? "L" : "M"}${x(point.t_h)} ${y(point)}`).join("");
  return (
    <figure aria-label="Rise and temperature over the hours" className="overflow-x-auto">
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block w-full min-w-2xl" aria-hidden>
        {stages.map((stage, at) => {
          const [from, to] = [x(stage.from_h), x(stage.to_h)];
          return (
            <g key={at}>
              <rect
                x={from}
                width={Math.max(0, to - from)}
                y={EDGE.top}
                height={FOOT - EDGE.top}
                fill={at % 2 ? "var(--color-faint)" : "none"}
              />
              {to - from > NAMED && (
                <text
                  x={(from + to) / 2}
                  y={18}
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
        <ChartAxis
          marks={marksOf(rise, 5, (tick) => `${tick} %`)}
          left={EDGE.left - 6}
          across={[EDGE.left, WIDTH - EDGE.right]}
        />
        <ChartAxis
          marks={marksOf(warm, 4, (tick) => format.temperature(tick, step < 1 ? 1 : 0))}
          left={EDGE.left - 6}
        />
        <ChartAxis marks={marksOf(x, 12, (tick) => format.minutes(tick * 60))} foot={HEIGHT - 10} />
        <path
          d={line((point) => rise(point.rise_pct))}
          fill="none"
          stroke="var(--color-moss)"
          strokeWidth="2.5"
        />
        <path
          d={line((point) => warm(point.dough_c))}
          fill="none"
          stroke="var(--color-crust)"
          strokeWidth="2"
          strokeDasharray="7 4"
        />
        <text
          x={WIDTH - EDGE.right}
          y={SPLIT + 18}
          fontSize="12"
          textAnchor="end"
          fill="var(--color-crust)"
        >
          dough temperature, dashed
        </text>
      </svg>
    </figure>
  );
}
