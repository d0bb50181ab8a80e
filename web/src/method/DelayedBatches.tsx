import { useState } from "react";
import type { Schemas } from "../api/client";
import { maturityFigure } from "../figures/maturityWords";
import { RecoveryWays } from "../figures/RecoveryWays";
import { useDoughState } from "../figures/useDoughState";
import { useFormat } from "../units/format";

interface Props {
  late: Schemas["DelayedBatch"][];
  dropped: number[];
  onDrop: (dough: number) => void;
  onKeep: () => void;
}

/** What waits because the line stands still, by how much it is late, and the ways out. */
export function DelayedBatches({ late, dropped, onDrop, onKeep }: Props) {
  const format = useFormat();
  const [open, setOpen] = useState<number | null>(late[0]?.dough ?? null);
  const seen = useDoughState();
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
            {open === one.dough && <RecoveryWays one={one} onDrop={() => onDrop(one.dough)} />}
          </li>
        ))}
      </ul>
    </section>
  );
}
