import { useState } from "react";
import type { Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { maturityFigure } from "../figures/maturityWords";

interface Props {
  late: Schemas["DelayedBatch"][];
  dropped: number[];
  onDrop: (dough: number) => void;
  onKeep: () => void;
}

const WAYS = {
  go_on: "Go on with it",
  hold_cold: "Hold it cold",
  spread_in_thirds: "Spread it in thirds",
  revive: "Revive it",
  bake_off: "Bake it off and discard it",
} as const satisfies Record<Schemas["Recovery"], string>;

/** How warm and how far risen a dough is. */
function useSeen() {
  const format = useFormat();
  return (dough: Schemas["DoughState"]) =>
    `at ${format.temperature(dough.dough_c)} and +${format.number(dough.rise_pct, 0)} %`;
}

/** What waits because the line stands still, by how much it is late, and the ways out. */
export function DelayedBatches({ late, dropped, onDrop, onKeep }: Props) {
  const format = useFormat();
  const [open, setOpen] = useState<number | null>(late[0]?.dough ?? null);
  const seen = useSeen();
  const past = late.filter((one) => one.past_min > 0);
  return (
    <section aria-labelledby="late" className="mt-5">
      <h2 id="late">
        {past.length === 0
          ? `${format.count(late.length, "dough waits", "doughs wait")}, none beyond its limit`
          : `${past.length} of ${format.count(late.length, "dough that waits goes", "doughs that wait go")} beyond their limits`}
      </h2>
      {dropped.length > 0 && (
        <p className="text-sm">
          Planned without {dropped.length === 1 ? "dough" : "doughs"} {dropped.join(", ")}.{" "}
          <button type="button" className="link" onClick={onKeep}>
            Discard
          </button>
        </p>
      )}
      <ul className="mt-1">
        {late.map((one) => (
          <li key={one.dough} className="border-t border-hair py-1.5">
            <p className="flex flex-wrap items-baseline gap-x-5">
              <b>
                Dough {one.dough}, {one.stage}
              </b>
              <span>waits {format.minutes(Math.round(one.waits_min))}</span>
              <span className={one.past_min > 0 ? "font-semibold text-stop" : "text-iron"}>
                {one.past_min > 0
                  ? `${format.minutes(Math.round(one.past_min))} beyond its limit`
                  : "within its limit"}
              </span>
              {one.then && one.planned && (
                <span className="text-sm text-iron">
                  then {seen(one.then)}, planned {seen(one.planned)}
                </span>
              )}
              <span className="text-sm text-iron">
                at the oven {maturityFigure(one.maturity, format)}; planned{" "}
                {format.number(one.planned_maturity.maturity, 2)}
              </span>
              <button
                type="button"
                className="screen-only link text-sm"
                aria-expanded={open === one.dough}
                onClick={() => setOpen(open === one.dough ? null : one.dough)}
              >
                {open === one.dough ? "Close" : "What to do"}
                <span className="sr-only"> with dough {one.dough}</span>
              </button>
            </p>
            {open === one.dough && <Ways one={one} onDrop={() => onDrop(one.dough)} />}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Ways({ one, onDrop }: { one: Schemas["DelayedBatch"]; onDrop: () => void }) {
  const format = useFormat();
  const seen = useSeen();
  return (
    <ul className="mt-1 ml-4 grid gap-x-8 gap-y-2 sm:grid-cols-2">
      {one.ways.map((way) => (
        <li
          key={way.way}
          className={`border-l-4 pl-3 ${way.advised ? "border-moss" : "border-hair"}`}
        >
          <p>
            <b>{WAYS[way.way]}</b>
            {way.advised && <span className="text-sm text-moss"> · the safe way</span>}
          </p>
          <p className="text-sm">
            {format.text(way.message)}
            {way.then && `; it goes on ${seen(way.then)}`}.
          </p>
          {way.amounts.length > 0 && (
            <p className="text-sm text-iron">
              {way.amounts
                .map((amount) => `${amount.of} ${format.mass(amount.kg, 0.01)}`)
                .join(" · ")}
              {way.way === "spread_in_thirds" &&
                way.doughs.length > 0 &&
                ` · into doughs ${way.doughs.join(", ")}`}
            </p>
          )}
          {way.caution && <p className="text-sm font-semibold">{way.caution}</p>}
          {(way.way === "spread_in_thirds" || way.way === "bake_off") && (
            <button type="button" className="screen-only link text-sm" onClick={onDrop}>
              Plan the rest without dough {one.dough}
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
