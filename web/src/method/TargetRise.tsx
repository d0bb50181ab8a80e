import { useMutation } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import { answer, api } from "../api/client";
import { useFormulaEdit } from "../dough/useFormulaEdit";
import { DateTimeField } from "../form/DateTimeField";
import { Faults } from "../form/Faults";
import { NumberField } from "../form/NumberField";
import { Refusal } from "../form/Refusal";
import { useScenarioContext } from "../shell/useScenarioContext";
import { momentOf } from "../units/clock";
import { useFormat } from "../units/format";

interface Props {
  /** What the dough has now: yeast as instant, and flour in its starter, % of the flour. */
  yeastPct: number;
  sourPct: number;
}

interface Wanted {
  rise: number | null;
  /** After the first mixing; where it meets the oven if none. */
  after: number | null;
  /** The hour at which it is to stand there. */
  at: string;
}

/** What alone brings the dough to a rise: yeast, starter, water, room, or time. */
export function TargetRise({ yeastPct, sourPct }: Props) {
  const { input } = useScenarioContext();
  const edit = useFormulaEdit();
  const format = useFormat();
  const [wanted, want] = useState<Wanted>({ rise: null, after: null, at: "" });
  const ask = useMutation({
    networkMode: "always",
    mutationFn: ({ rise, after, at }: Wanted) => {
      if (!input) throw new Error("asked without a product");
      const body = {
        scenario: input,
        rise_pct: rise ?? undefined,
        after_min: after ?? undefined,
        wanted_at: at ? momentOf(at).toISOString() : undefined,
      };
      return answer(api.POST("/api/v1/chain/target-rise", { body }));
    },
  });
  const set = (change: Partial<Wanted>) => {
    const next = { ...wanted, ...change };
    want(next);
    if (next.rise !== null) ask.mutate(next);
  };
  const found = ask.data;
  const dose = found?.yeast_idy_pct;
  const take = (pct: number) => {
    ask.reset();
    edit.mutate({ edit: "yeast_dose", from_pct: yeastPct, to_pct: pct });
  };
  return (
    <section aria-labelledby="target-rise">
      <h2 id="target-rise">Target rise</h2>
      <Faults error={ask.error}>
        <div className="mt-1 grid grid-cols-2 gap-x-4 gap-y-2">
          <NumberField
            label="Rise"
            kind="percent"
            value={wanted.rise}
            onSet={(rise) => set({ rise })}
            field="rise_pct"
          />
          <NumberField
            label="After the first mixing"
            kind="duration"
            value={wanted.after}
            onSet={(after) => set({ after })}
            field="after_min"
            hint={wanted.after === null ? "at the oven" : undefined}
          />
          <div className="col-span-2">
            <DateTimeField
              label="Wanted at"
              optional
              value={wanted.at}
              onSet={(at) => set({ at })}
              field="wanted_at"
            />
          </div>
        </div>
        {found && (
          <>
            <p className="mt-2 text-sm text-iron">Each alone, all else as it is:</p>
            <dl>
              {yeastPct > 0 && (
                <Answer word="yeast, as instant">
                  {dose == null ? `${found.message}` : format.share(dose)}
                </Answer>
              )}
              {sourPct > 0 && (
                <Answer word="starter">
                  {found.starter &&
                    `${format.percent(found.starter.starter_pct)}, ${format.mass(found.starter.kg)}`}
                </Answer>
              )}
              <Answer word="water">
                {found.water &&
                  `${format.temperature(found.water.water_c)}${
                    found.water.ice_kg > 0 ? ` and ${format.mass(found.water.ice_kg)} of ice` : ""
                  }, dough of ${format.temperature(found.water.dough_c)}`}
              </Answer>
              <Answer word="room">
                {found.room_c == null ? null : format.temperature(found.room_c)}
              </Answer>
              <Answer word="time after the first mixing">
                {found.after_h == null ? null : format.minutes(found.after_h * 60)}
              </Answer>
              {found.mixing_from && (
                <Answer word="mixing starts">{format.moment(found.mixing_from)}</Answer>
              )}
            </dl>
          </>
        )}
      </Faults>
      {dose != null && yeastPct > 0 && (
        <button type="button" className="act mt-2" onClick={() => take(dose)}>
          Use in the formula
        </button>
      )}
      <Refusal error={edit.error} />
    </section>
  );
}

/** One of the answers; a word where nothing in its range does it. */
function Answer({ word, children }: { word: string; children: ReactNode }) {
  return (
    <div className="flex justify-between gap-3 border-t border-hair py-0.5">
      <dt className="text-iron">{word}</dt>
      <dd className={children ? "figure text-right" : "text-sm"}>{children ?? "none does it"}</dd>
    </div>
  );
}
