import { useQuery } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { DateTimeField } from "../form/DateTimeField";
import { Faults } from "../form/Faults";
import { NumberField } from "../form/NumberField";
import { Select } from "../form/Select";
import { fieldOf, momentOf } from "../units/clock";
import { useFormat } from "../units/format";
import { useKept } from "../storage/useKept";
import { CalendarButton } from "./CalendarButton";
import { maturityFigure } from "../figures/maturityWords";

interface Asked {
  pieces: number;
  kept: Schemas["PortionStorage"];
  /** As a browser's field keeps a date and a time. */
  at: string;
}

interface Props {
  /** Each product has portions of its own. */
  product: string;
  scenario: Schemas["ScenarioInput"];
  /** The dough they are of. */
  plan: Schemas["SchedulePlan"];
}

const DAY_MS = 86_400_000;

/** One dough used over several days: each portion with when it comes out of the cold and warms. */
export function Portions({ product, scenario, plan }: Props) {
  const format = useFormat();
  const [{ portions: asked }, set] = useKept<{ portions: Asked[] }>(
    `ironpeel.portions.${product}`,
    (kept) => ({
      portions: kept?.portions ?? [],
    }),
  );
  const put = (portions: Asked[]) => set({ portions });
  const change = (at: number, next: Partial<Asked>) =>
    put(asked.map((one, place) => (place === at ? { ...one, ...next } : one)));
  const add = () => {
    const last = asked.at(-1);
    const at = last ? momentOf(last.at).getTime() : Date.parse(plan.out_at);
    put([...asked, { pieces: 2, kept: "refrigerator", at: fieldOf(new Date(at + DAY_MS)) }]);
  };
  const body: Schemas["PortionsQuery"] = {
    scenario,
    starts_at: plan.starts_at,
    portions: asked.map(({ pieces, kept, at }) => ({
      pieces,
      kept,
      out_of_oven_at: momentOf(at).toISOString(),
    })),
  };
  const { data, error } = useQuery({
    queryKey: ["portions", body],
    enabled: asked.length > 0,
    queryFn: ({ signal }) => answer(api.POST("/api/v1/chain/portions", { body, signal })),
  });
  return (
    <section aria-labelledby="portions" className="mt-8">
      <h2 id="portions">Portions on several days</h2>
      {asked.length === 0 && (
        <p className="max-w-prose text-sm text-iron">
          Pieces of this dough for another day: kept in the cold, each with when it comes out and
          warms.
        </p>
      )}
      <Faults error={error}>
        <ul>
          {asked.map((one, at) => {
            const found = data?.portions[at];
            return (
              <li key={at} className="border-t border-hair py-2">
                <div className="screen-only flex flex-wrap items-start gap-x-5 gap-y-2">
                  <NumberField
                    className="w-20"
                    label="Pieces"
                    kind="number"
                    value={one.pieces}
                    onSet={(pieces) => change(at, { pieces: pieces ?? 1 })}
                    field={`portions[${at}].pieces`}
                  />
                  <Select
                    label="Kept in the"
                    value={one.kept}
                    options={[
                      ["refrigerator", "refrigerator"],
                      ["freezer", "freezer"],
                    ]}
                    onSet={(kept) => change(at, { kept })}
                  />
                  <DateTimeField
                    label="Out of the oven"
                    value={one.at}
                    onSet={(next) => change(at, { at: next })}
                    field={`portions[${at}].out_of_oven_at`}
                  />
                  <button
                    type="button"
                    className="link pt-7"
                    onClick={() => put(asked.toSpliced(at, 1))}
                  >
                    Take out<span className="sr-only"> portion {at + 1}</span>
                  </button>
                </div>
                {found && (
                  <p className="mt-1">
                    {found.thaw_at && (
                      <>
                        into the refrigerator <b>{format.moment(found.thaw_at)}</b>,{" "}
                      </>
                    )}
                    out <b>{format.moment(found.out_at)}</b>, its core at{" "}
                    {format.temperature(found.warm_c, 0)} by {format.moment(found.warm_at)}, into
                    the oven <b>{format.moment(found.bake_at)}</b>
                    <span className="block text-sm text-iron">
                      {format.number(found.kept_h, 0)} h in the cold
                      {found.rise_pct != null &&
                        `; at the oven risen +${format.number(found.rise_pct, 0)} %`}
                      {found.maturity && `, maturity ${maturityFigure(found.maturity, format)}`}
                    </span>
                    {found.caution && (
                      <span className="block font-semibold text-stop">{found.caution}.</span>
                    )}
                  </p>
                )}
              </li>
            );
          })}
        </ul>
      </Faults>
      {data && (
        <p className="border-t border-hair pt-2 text-sm">
          Divided and into the cold {format.moment(data.divided_at)};{" "}
          {data.left_pieces === 0
            ? `all ${data.pieces} pieces are taken.`
            : `${data.left_pieces} of ${data.pieces} pieces are left over.`}
        </p>
      )}
      <p className="screen-only mt-2 flex gap-3">
        <button type="button" className="act" disabled={asked.length >= 12} onClick={add}>
          Add a portion
        </button>
        {data && (
          <CalendarButton
            label="Portions as a calendar"
            path="/api/v1/chain/portions/calendar"
            body={body}
          />
        )}
      </p>
    </section>
  );
}
