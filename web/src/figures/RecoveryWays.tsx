import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { useDoughState } from "./useDoughState";

const WAYS = {
  go_on: "Go on with it",
  hold_cold: "Hold it cold",
  spread_in_thirds: "Spread it in thirds",
  revive: "Revive it",
  bake_off: "Bake it off and discard it",
} as const satisfies Record<Schemas["Recovery"], string>;

interface Props {
  one: Schemas["DelayedBatch"];
  /** Plans the rest of a run without it. */
  onDrop?: () => void;
}

/** The ways out for a dough that waits, with their amounts. */
export function RecoveryWays({ one, onDrop }: Props) {
  const format = useFormat();
  const seen = useDoughState();
  return (
    <ul className="mt-1 ml-4 grid gap-x-8 gap-y-2 sm:grid-cols-2">
      {one.ways.map((way) => (
        <li
          key={way.way}
          className={`border-l-4 pl-3 ${way.advised ? "border-moss" : "border-hair"}`}
        >
          <p>
            <b>{WAYS[way.way]}</b>
            {way.advised && <span className="text-[0.9em] text-moss"> · the safe way</span>}
          </p>
          <p className="text-[0.9em]">
            {format.text(way.message)}
            {way.then && `; it goes on ${seen(way.then)}`}.
          </p>
          {way.amounts.length > 0 && (
            <p className="text-[0.9em] text-iron">
              {way.amounts
                .map((amount) => `${amount.of} ${format.mass(amount.kg, 0.01)}`)
                .join(" · ")}
              {way.way === "spread_in_thirds" &&
                way.doughs.length > 0 &&
                ` · into doughs ${way.doughs.join(", ")}`}
            </p>
          )}
          {way.caution && <p className="text-[0.9em] font-semibold">{way.caution}</p>}
          {onDrop && (way.way === "spread_in_thirds" || way.way === "bake_off") && (
            <button type="button" className="screen-only link text-[0.9em]" onClick={onDrop}>
              Plan the rest without dough {one.dough}
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
