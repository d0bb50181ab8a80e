import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { useFormat } from "../units/format";
import { USES } from "../plant/uses";
import { optionsOf, Select } from "../form/Select";
import { BASES } from "./bases";

interface Props {
  flour: Schemas["FlourView"];
  disabled: boolean;
  onTake: (limit: Schemas["Limit"]) => void;
}

/** Limits to consider, and which part of past lots each would have put out. */
export function SuggestedLimits({ flour, disabled, onTake }: Props) {
  const format = useFormat();
  const [use, setUse] = useState(flour.intended_use);
  const [k, setK] = useState(2);
  const proposals = useQuery({
    queryKey: ["proposals", flour.id, use, k],
    placeholderData: keepPreviousData,
    queryFn: () =>
      answer(
        api.GET("/api/v1/flours/{flour_id}/specifications/suggestions", {
          params: { path: { flour_id: flour.id }, query: { intended_use: use, k } },
        }),
      ),
  }).data;
  const bound = (value: number | null | undefined) => (value == null ? "" : format.plain(value));
  return (
    <section aria-labelledby="proposals" className="screen-only mt-8">
      <h2 id="proposals" className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
        Suggested limits
        <Select
          label="for"
          place="beside"
          className="font-normal"
          value={use}
          options={optionsOf(USES)}
          onSet={setUse}
        />
        <Select
          label="history within"
          place="beside"
          className="font-normal"
          value={String(k)}
          options={[1.5, 2, 2.5, 3].map((one) => [String(one), `${one} standard deviations`])}
          onSet={(times) => setK(Number(times))}
        />
      </h2>
      <div className="overflow-x-auto">
        <table className="mt-1 w-full max-w-5xl">
          <thead>
            <tr className="border-b border-ink">
              <th scope="col">property</th>
              <th scope="col">basis</th>
              <th scope="col">from</th>
              <th scope="col" className="text-right">
                minimum
              </th>
              <th scope="col" className="text-right">
                target
              </th>
              <th scope="col" className="text-right">
                maximum
              </th>
              <th scope="col" className="pl-5">
                past lots out
              </th>
              <th scope="col">
                <span className="sr-only">take</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {proposals?.map(
              ({ limit, label, unit, from, lots, would_fail_pct, would_be_borderline_pct }) => (
                <tr key={`${limit.property} ${from}`} className="border-b border-hair">
                  <th scope="row" className="py-0.5 text-base font-normal text-ink">
                    {label} <span className="text-xs text-iron">{unit}</span>
                  </th>
                  <td className="text-sm">{limit.basis && BASES[limit.basis]}</td>
                  <td className="text-sm">{from === "history" ? "its own lots" : "the use (H)"}</td>
                  <td className="text-right">{bound(limit.min)}</td>
                  <td className="text-right">{bound(limit.target)}</td>
                  <td className="text-right">{bound(limit.max)}</td>
                  <td className={`pl-5 text-sm ${would_fail_pct > 10 ? "text-stop" : ""}`}>
                    {lots === 0
                      ? "no lots"
                      : `${format.number(would_fail_pct, 0)} % of ${lots}, ${format.number(would_be_borderline_pct, 0)} % borderline`}
                  </td>
                  <td>
                    <button
                      type="button"
                      className="link text-sm"
                      disabled={disabled}
                      aria-label={`Take ${label} from ${from}`}
                      onClick={() => onTake(limit)}
                    >
                      take
                    </button>
                  </td>
                </tr>
              ),
            )}
          </tbody>
        </table>
      </div>
    </section>
  );
}
