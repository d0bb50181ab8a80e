import { scaleLinear } from "d3-scale";
import type { Schemas } from "../api/client";
import { ORIGIN } from "../shell/Derivation";
import { useFormat } from "../units/format";

/** From the flour's figure to the dough absorption, a step each, bands visible. */
export function AbsorptionBuildUpFigure({ of }: { of: Schemas["AbsorptionBuildUp"] }) {
  const format = useFormat();
  const { steps, floor_pct, low_pct, high_pct, ceiling_pct } = of;
  const landings = steps.reduce<number[]>(
    (all, step) => [...all, (all.at(-1) ?? 0) + step.points],
    [],
  );
  const reached = steps.flatMap((step, at) => {
    const start = landings[at - 1] ?? 0;
    return at === 0
      ? [step.low, step.high]
      : [start + step.low, start + step.high, landings[at] ?? 0];
  });
  const shown = [...reached, low_pct, high_pct, floor_pct];
  const near = ceiling_pct != null && ceiling_pct < Math.max(...shown) + 4;
  const top = Math.max(...shown, near ? ceiling_pct : 0) + 0.6;
  const bottom = Math.min(...shown) - 0.8;
  const columns = steps.length + 1;
  const y = scaleLinear([bottom, top], [200, 0]);
  const grid = { gridTemplateColumns: `repeat(${columns}, minmax(6.2rem, 1fr))` };
  return (
    <figure className="overflow-x-auto" aria-label="Absorption build-up">
      <div style={{ minWidth: `${columns * 6.2}rem` }}>
        <div className="grid" style={grid} aria-hidden>
          {steps.map((step, at) => (
            <p key={step.key} className="figure px-1 text-center text-base">
              {at === 0 ? format.number(step.points) : format.signed(step.points)}
            </p>
          ))}
          <p className="figure px-1 text-center text-base">{format.number(floor_pct)}</p>
        </div>
        <svg
          viewBox={`0 0 ${columns * 100} 200`}
          preserveAspectRatio="none"
          className="h-56 w-full"
          aria-hidden
        >
          {y.ticks(6).map((tick) => (
            <line
              key={tick}
              x1="0"
              x2={columns * 100}
              y1={y(tick)}
              y2={y(tick)}
              stroke="var(--color-hair)"
              vectorEffect="non-scaling-stroke"
            />
          ))}
          {near && (
            <line
              x1="0"
              x2={columns * 100}
              y1={y(ceiling_pct)}
              y2={y(ceiling_pct)}
              stroke="var(--color-stop)"
              strokeDasharray="6 5"
              strokeWidth="1.5"
              vectorEffect="non-scaling-stroke"
            />
          )}
          {steps.map((step, at) => {
            const before = landings[at - 1] ?? 0;
            const after = landings[at] ?? 0;
            const left = at * 100;
            const start = at === 0 ? bottom : before;
            return (
              <g key={step.key}>
                <rect
                  x={left + 18}
                  width="64"
                  y={y(Math.max(start, after))}
                  height={Math.max(1.5, Math.abs(y(start) - y(after)))}
                  fill={at === 0 || step.points >= 0 ? "var(--color-water)" : "var(--color-crust)"}
                  opacity={at === 0 ? 0.28 : 0.75}
                />
                <line
                  x1={left + 18}
                  x2={left + 182}
                  y1={y(after)}
                  y2={y(after)}
                  stroke="var(--color-ink)"
                  strokeWidth="1"
                  vectorEffect="non-scaling-stroke"
                />
                {step.low !== step.high && (
                  <path
                    d={whisker(
                      left + 50,
                      y((at === 0 ? 0 : before) + step.low),
                      y((at === 0 ? 0 : before) + step.high),
                    )}
                    stroke="var(--color-ink)"
                    strokeWidth="1.2"
                    fill="none"
                    vectorEffect="non-scaling-stroke"
                  />
                )}
              </g>
            );
          })}
          <rect
            x={steps.length * 100 + 18}
            width="64"
            y={y(floor_pct)}
            height={200 - y(floor_pct)}
            fill="var(--color-water)"
            opacity="0.28"
          />
          <rect
            x={steps.length * 100 + 8}
            width="84"
            y={y(high_pct)}
            height={y(low_pct) - y(high_pct)}
            fill="none"
            stroke="var(--color-ink)"
            strokeDasharray="3 3"
            vectorEffect="non-scaling-stroke"
          />
        </svg>
        <div className="grid border-t border-ink text-xs" style={grid} aria-hidden>
          {steps.map((step) => (
            <p key={step.key} className="px-1.5 pt-1 text-center">
              {step.label} <span className="text-iron">{ORIGIN[step.origin].letter}</span>
            </p>
          ))}
          <p className="px-1.5 pt-1 text-center font-semibold">dough absorption</p>
        </div>
      </div>
      <figcaption className="mt-2 text-sm text-iron">
        Thin marks are each adjustment's low and high; the dashed box is the band of the dough
        absorption.
        {near &&
          ` The dashed line is what the strength is likely to carry, ${format.percent(ceiling_pct)}.`}{" "}
        The columns do not start at zero.
      </figcaption>
    </figure>
  );
}

const whisker = (x: number, low: number, high: number) =>
  `M${x - 10} ${low}h20M${x} ${low}V${high}M${x - 10} ${high}h20`;
