import { scaleLinear } from "d3-scale";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { ChartAxis, marksOf } from "./ChartAxis";

const WIDTH = 700;
const HEIGHT = 300;
const [TOP, FOOT] = [20, HEIGHT - 28];
/** The walls of the jar. */
const [WALL, OTHER_WALL] = [50, 130];
const [FROM, TO] = [170, WIDTH - 16];
const HOUR_MS = 3_600_000;

/** The sample jar with its mark and level, and beside it on one scale the levels that are to come. */
export function JarFigure({ view }: { view: Schemas["BatchFermentationView"] }) {
  const format = useFormat();
  const { fermentation, readings, now_h, began_at } = view;
  if (!fermentation) return null;
  const { series, wanted } = fermentation;
  const hours = series.at(-1)?.t_h ?? 1;
  const shown = [
    Math.max(0, now_h - 3),
    Math.min(hours, Math.max(now_h + 4, (wanted.at_h ?? 0) + 1)),
  ];
  const [first = 0, last = 1] = shown;
  const seen = series.filter((point) => point.t_h >= first - 0.1 && point.t_h <= last + 0.1);
  const most = Math.max(
    wanted.rise_pct * 1.15,
    20,
    ...readings.map((one) => one.rise_pct),
    ...seen.map((point) => point.rise_pct.typical),
  );
  const y = scaleLinear([0, most * 1.1], [FOOT, TOP]);
  const x = scaleLinear([first, last], [FROM, TO]);
  const now = series.reduce((at, point) =>
    Math.abs(point.t_h - now_h) < Math.abs(at.t_h - now_h) ? point : at,
  );
  const clock = (t_h: number) =>
    format.time(new Date(Date.parse(began_at) + t_h * HOUR_MS).toISOString());
  const clamp = (value: number) => Math.max(TOP, Math.min(FOOT, y(value)));
  const edge = (of: "low" | "high") =>
    seen.map((point) => `${x(point.t_h)} ${clamp(point.rise_pct[of])}`);
  return (
    <figure aria-label="Sample jar and its predicted levels" className="overflow-x-auto">
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block w-full">
        <rect
          x={WALL}
          y={y(now.rise_pct.typical)}
          width={OTHER_WALL - WALL}
          height={FOOT - y(now.rise_pct.typical) + 14}
          fill="var(--color-moss)"
          fillOpacity="0.28"
        />
        <path
          d={`M${WALL} ${TOP - 8}V${FOOT + 14}H${OTHER_WALL}V${TOP - 8}`}
          fill="none"
          stroke="var(--color-ink)"
          strokeWidth="3"
        />
        <line
          x1={WALL}
          x2={TO}
          y1={y(wanted.rise_pct)}
          y2={y(wanted.rise_pct)}
          stroke="var(--color-crust)"
          strokeDasharray="6 4"
          strokeWidth="1.5"
        />
        <text
          x={TO}
          y={y(wanted.rise_pct) - 6}
          fontSize="13"
          textAnchor="end"
          fill="var(--color-crust)"
        >
          mark, +{format.percent(wanted.rise_pct, 0)}
        </text>
        <ChartAxis marks={marksOf(y, 6, (tick) => `+${format.plain(tick)}`)} left={WALL - 8} />
        <path
          d={`M${edge("high").join("L")}L${edge("low").reverse().join("L")}Z`}
          fill="var(--color-moss)"
          fillOpacity="0.2"
        />
        <path
          d={`M${seen.map((point) => `${x(point.t_h)} ${clamp(point.rise_pct.typical)}`).join("L")}`}
          fill="none"
          stroke="var(--color-moss)"
          strokeWidth="2.5"
        />
        {readings.map((one) => (
          <g key={one.t_h}>
            <line
              x1={OTHER_WALL - 16}
              x2={OTHER_WALL}
              y1={y(one.rise_pct)}
              y2={y(one.rise_pct)}
              stroke="var(--color-ink)"
              strokeWidth="2"
            />
            {one.t_h >= first && (
              <circle cx={x(one.t_h)} cy={y(one.rise_pct)} r="4" fill="var(--color-ink)">
                <title>{`${clock(one.t_h)}: +${format.percent(one.rise_pct, 0)}`}</title>
              </circle>
            )}
          </g>
        ))}
        <line
          x1={x(now_h)}
          x2={x(now_h)}
          y1={TOP}
          y2={FOOT}
          stroke="var(--color-stop)"
          strokeWidth="1.5"
        />
        <line x1={FROM} x2={TO} y1={FOOT} y2={FOOT} stroke="var(--color-ink)" />
        <ChartAxis marks={marksOf(x, 6, clock)} foot={FOOT + 18} />
      </svg>
    </figure>
  );
}
