import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { answer, api } from "../api/client";
import { Refusal } from "../form/Refusal";
import { useFormat } from "../units/format";
import { TrialJudged } from "../judging/TrialJudged";
import { doughLetter } from "../judging/trialWords";
import { TrialTable } from "./TrialTable";

const SCORED = ["stickiness", "strength", "height", "crumb", "crust", "eating", "note"];

/** A trial set as it was set out, to print for the bench with room for notes, and as it was judged. */
export function TrialPage() {
  const { id = "" } = useParams();
  const format = useFormat();
  const { data: trial, error } = useQuery({
    queryKey: ["trial", id],
    queryFn: () =>
      answer(api.GET("/api/v1/trials/{trial_id}", { params: { path: { trial_id: id } } })),
  });
  if (!trial)
    return error ? (
      <Refusal error={error} />
    ) : (
      <p className="py-10 text-iron">Looking for the trial …</p>
    );
  const { variants } = trial.issued;
  return (
    <article aria-label="Trial set">
      <header className="flex flex-wrap items-end justify-between gap-4 border-b-2 border-ink pb-2">
        <div>
          <h1>Trial of {trial.product}</h1>
          <p className="text-sm">
            Set up by {trial.saved_by}, {format.moment(trial.saved_at)}
          </p>
        </div>
        <p className="screen-only flex gap-3">
          <button type="button" className="act" onClick={() => window.print()}>
            Print sheet
          </button>
          <Link className="act" to={`/dough/trials?product=${trial.slug}`}>
            Another trial
          </Link>
        </p>
      </header>
      <TrialTable set={trial.issued} />
      <table className="mt-4 hidden w-full border-collapse print:table">
        <caption className="text-left font-semibold">Scores at the bench, 1 to 5</caption>
        <thead>
          <tr className="border-b border-ink">
            <td />
            {variants.map((variant, at) => (
              <th scope="col" key={variant.name} className="px-2 text-ink">
                {doughLetter(at)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {SCORED.map((name) => (
            <tr key={name} className="border-b border-hair">
              <th scope="row" className="w-36 py-1.5 text-sm font-normal text-ink">
                {name}
              </th>
              {variants.map((variant) => (
                <td key={variant.name} className="border-l border-hair" />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-3 text-sm text-iron">
        Mix them one after another from the same flour and water; hot trays, steam and running
        mixers as ever: gloves, guards, the maker's instructions.
      </p>
      <TrialJudged trial={trial} />
    </article>
  );
}
