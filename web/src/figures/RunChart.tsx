import { scaleTime } from "d3-scale";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { isAfterOven } from "./afterOven";
import { thinned } from "./scale";
import { LOOKS, StagePatterns } from "./StagePatterns";
import { TimeAxis } from "./TimeAxis";

const WIDTH = 1000;
const LABEL = 34;
const EDGE = 16;
/** The temperatures beneath, °C. */
const [COLDEST, SPAN] = [20, 20];
const HOUR_MS = 3_600_000;

type Stage = Schemas["RunStage"];

const LEGEND = [
  ["sponge", "sponge fermentation"],
  ["mixing", "mixer"],
  ["floor", "floor time"],
  ["dividing", "divided, moulded"],
  ["proof", "proof"],
  ["bake", "oven"],
] as const;

interface Props {
  plan: Schemas["RunPlan"];
  rise: Schemas["Rise"] | undefined;
  stop: { from: number; to: number } | undefined;
  now: number;
  chosen: { dough: number; stage: number } | null;
  onChoose: (dough: number, stage: number) => void;
}

/** Every dough of a run on the clock, troughs in use and the first one's rise beneath. */
export function RunChart({ plan, rise, stop, now, chosen, onChoose }: Props) {
  const format = useFormat();
  const start = Date.parse(plan.starts_at);
  const end = Date.parse(plan.out_at);
  const x = scaleTime([start, end], [LABEL + EDGE, WIDTH - EDGE]);
  const row = Math.max(8, Math.min(18, 300 / plan.doughs.length));
  const bars = 22 + plan.doughs.length * row;
  const [troughsTop, troughsFoot] = [bars + 26, bars + 66];
  const [riseTop, riseFoot] = [troughsFoot + 24, troughsFoot + 94];
  const foot = riseFoot + 8;
  const most = Math.max(1, ...plan.troughs.map((one) => one.troughs));
  const begins = (role: Stage["role"]) =>
    Date.parse(
      plan.doughs[0]?.stages.find((stage) => stage.role === role)?.starts_at ?? plan.starts_at,
    );
  const [setAt, mixesAt] = [begins("sponge"), begins("mixing")];
  const points = [
    ...(rise?.sponge?.series ?? []).map((point) => ({
      at: setAt + point.t_h * HOUR_MS,
      celsius: point.dough_c,
      rise: point.rise_pct,
    })),
    ...(rise?.series ?? []).map((point) => ({
      at: mixesAt + point.t_h * HOUR_MS,
      celsius: point.dough_c,
      rise: point.rise_pct,
    })),
  ];
  const shown = thinned(points, 300);
  const highest = Math.max(50, ...shown.map((point) => point.rise));
  const line = (of: (point: (typeof points)[number]) => number) =>
    shown
      .map(
        (point, at) =>
          `${at ? "L" : "M"}${x(point.at)} ${riseFoot - of(point) * (riseFoot - riseTop)}`,
      )
      .join("");
  return (
    <figure aria-label="Production run by the clock" className="overflow-x-auto">
      <svg viewBox={`0 0 ${WIDTH} ${foot + 24}`} className="block w-full min-w-2xl">
        <StagePatterns />
        {stop && (
          <rect
            x={x(Math.max(stop.from, start))}
            width={Math.max(0, x(Math.min(stop.to, end)) - x(Math.max(stop.from, start)))}
            y={0}
            height={foot}
            fill="var(--color-stop)"
            opacity="0.16"
          />
        )}
        {plan.doughs.map((dough, at) => (
          <g key={dough.number}>
            <text
              x={LABEL}
              y={22 + at * row + row * 0.75}
              fontSize={Math.min(13, row)}
              textAnchor="end"
              fill="var(--color-iron)"
            >
              {dough.number}
            </text>
            {dough.stages
              .filter((stage) => !isAfterOven(stage))
              .map((stage) => (
                <Bar
                  key={stage.stage}
                  stage={stage}
                  x={x(Date.parse(stage.starts_at))}
                  width={x(Date.parse(stage.ends_at)) - x(Date.parse(stage.starts_at))}
                  y={22 + at * row + 1}
                  height={row - 2}
                  message={`Dough ${dough.number}, ${stage.label}, ${format.moment(stage.starts_at)}`}
                  chosen={chosen?.dough === dough.number && chosen.stage === stage.stage}
                  onChoose={() => onChoose(dough.number, stage.stage)}
                />
              ))}
            {dough.stages
              .flatMap((stage) => stage.folds)
              .map((set) => (
                <rect
                  key={set.starts_at}
                  className="pointer-events-none"
                  x={x(Date.parse(set.starts_at))}
                  width="2.5"
                  y={22 + at * row + 1}
                  height={row - 2}
                  fill="var(--color-ink)"
                />
              ))}
          </g>
        ))}
        {LEGEND.map(([role, label], at) => (
          <g key={role} transform={`translate(${LABEL + EDGE + at * 150} 2)`}>
            <rect width="22" height="11" fill={LOOKS[role]?.fill} stroke={LOOKS[role]?.stroke} />
            <text x="28" y="10" fontSize="12" fill="var(--color-iron)">
              {label}
            </text>
          </g>
        ))}
        <text x={LABEL + EDGE} y={troughsTop - 5} fontSize="12" fill="var(--color-iron)">
          troughs in use, to {most}
        </text>
        <path
          d={plan.troughs
            .map((one, i) => {
              const next = plan.troughs[i + 1];
              const [from, to] = [x(Date.parse(one.from)), x(next ? Date.parse(next.from) : end)];
              const y = troughsFoot - (one.troughs / most) * (troughsFoot - troughsTop);
              return `M${from} ${troughsFoot}V${y}H${to}V${troughsFoot}Z`;
            })
            .join("")}
          fill="var(--color-moss)"
          opacity="0.35"
        />
        <line
          x1={LABEL + EDGE}
          x2={WIDTH - EDGE}
          y1={troughsFoot}
          y2={troughsFoot}
          stroke="var(--color-hair)"
        />
        {shown.length > 0 && (
          <>
            <text x={LABEL + EDGE} y={riseTop - 5} fontSize="12" fill="var(--color-moss)">
              the first dough as planned: its rise, to {format.number(highest, 0)} %,{" "}
              <tspan fill="var(--color-crust)">
                and its temperature, {format.temperature(COLDEST, 0)} to{" "}
                {format.temperature(COLDEST + SPAN, 0)}
              </tspan>
            </text>
            <path
              d={line((point) => point.rise / highest)}
              fill="none"
              stroke="var(--color-moss)"
              strokeWidth="2"
            />
            <path
              d={line((point) => Math.min(1, Math.max(0, (point.celsius - COLDEST) / SPAN)))}
              fill="none"
              stroke="var(--color-crust)"
              strokeWidth="1.5"
              strokeDasharray="5 3"
            />
          </>
        )}
        {now > start && now < end && (
          <line
            x1={x(now)}
            x2={x(now)}
            y1={4}
            y2={foot}
            stroke="var(--color-stop)"
            strokeWidth="1.5"
          />
        )}
        <TimeAxis x={x} y={foot} />
      </svg>
    </figure>
  );
}

interface BarProps {
  stage: Stage;
  x: number;
  width: number;
  y: number;
  height: number;
  message: string;
  chosen: boolean;
  onChoose: () => void;
}

function Bar({ stage, x, width, y, height, message, chosen, onChoose }: BarProps) {
  const look = LOOKS[stage.role] ?? { fill: "var(--color-sheet)", stroke: "var(--color-iron)" };
  return (
    <rect
      role="button"
      tabIndex={-1}
      aria-label={message}
      className="cursor-pointer"
      x={x}
      width={Math.max(1.5, width)}
      y={y}
      height={height}
      fill={look.fill}
      stroke={
        stage.past_min > 0 ? "var(--color-stop)" : chosen ? "var(--color-water)" : look.stroke
      }
      strokeWidth={stage.past_min > 0 || chosen ? 2.5 : 1}
      onClick={onChoose}
    >
      <title>{message}</title>
    </rect>
  );
}
