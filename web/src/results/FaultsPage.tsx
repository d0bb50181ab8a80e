import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { answer, api } from "../api/client";
import { useFormat } from "../units/format";
import { Drifts } from "./Drifts";
import { CausesFound } from "./CausesFound";
import { FAULTS } from "../scenario/found";
import { FaultChoice } from "./FaultChoice";
import { FaultEvidence } from "./FaultEvidence";
import { ResultsTabs } from "./ResultsTabs";
import { useAsked } from "./useAsked";

/** A fault of a batch: what is known, which causes that points at, and one change to make. */
export function FaultsPage() {
  const format = useFormat();
  const [search, set] = useAsked();
  const [answers, setAnswers] = useState<Record<string, number>>({});
  const of = (key: string) => search.get(key) ?? "";
  const [batch, fault, baked] = [of("batch"), of("fault"), of("baked")] as const;
  const asked = { of: of("of"), made: of("made"), batch, fault, baked };
  const catalogue = useQuery(FAULTS).data;
  const picked = catalogue?.faults.find((one) => one.key === fault);
  const { data, error } = useQuery({
    queryKey: ["batches", "diagnosis", batch, fault, baked, answers],
    enabled: Boolean(batch && picked),
    // While an answer is weighed; never another batch's or another fault's.
    placeholderData: (before, query) =>
      query?.queryKey[2] === batch && query.queryKey[3] === fault ? before : undefined,
    queryFn: () =>
      answer(
        api.POST("/api/v1/batches/{batch_id}/diagnosis", {
          params: { path: { batch_id: batch } },
          body: { fault: fault, gates: baked ? [baked] : [], answers },
        }),
      ),
  });
  return (
    <>
      <ResultsTabs />
      <h1 className="sr-only">Fault finder</h1>
      <FaultChoice
        catalogue={catalogue}
        asked={asked}
        onSet={(change) => {
          if (change.batch !== undefined || change.fault !== undefined) setAnswers({});
          set(change);
        }}
      />
      {picked && (
        <p className="mt-3 max-w-3xl">
          {picked.definition}. <span className="text-iron">{picked.measure}.</span>
        </p>
      )}
      {error && (
        <p role="alert" className="mt-3">
          {format.text(error.message)}
        </p>
      )}
      {!picked && (
        <p className="mt-4 max-w-3xl text-iron">
          Choose a batch and what is wrong with it; of a complaint, the product and the day it was
          made say which batches it can be. Its own figures are held against what each cause would
          do; what was not measured is asked for.
        </p>
      )}
      {!picked && <Drifts />}
      {data && catalogue && picked && (
        <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
          <CausesFound
            batch={batch}
            fault={fault}
            found={data.diagnosis}
            own={data.own}
            confirmed={data.confirmed}
            cases={data.cases}
            catalogue={catalogue}
          />
          <FaultEvidence
            batch={batch}
            wanted={picked.features}
            decides={data.diagnosis.would_decide}
            found={data.features}
            answers={answers}
            catalogue={catalogue}
            onAnswer={(feature, value) =>
              setAnswers((now) => {
                const next = { ...now };
                if (value === null) delete next[feature];
                else next[feature] = value;
                return next;
              })
            }
          />
        </div>
      )}
      <SafetyCaution />
    </>
  );
}

/** What is never ranked. */
function SafetyCaution() {
  return (
    <details className="mt-8 max-w-3xl border-t border-hair pt-2">
      <summary className="font-semibold">Mould or rope</summary>
      <p className="mt-1">
        <b>Caution:</b> visible mould makes waste of the whole loaf; do not cut round it, do not
        smell it, keep it out of return bread. Stop the batch and ask the person in charge of food
        safety; local rules decide about the rest. A fruity smell and sticky threads in the crumb
        are rope: separate at once, do not rework, clean by the cleaning plan for spores. Nothing is
        said here about its cause. What usually helps to look at: the core when wrapped,
        condensation and filters in the cooler, flour dust near the slicer, blades and conveyors,
        inhibitor and pH by the shelf-life plan, a store over 28 °C.{" "}
        <Link className="link" to="/results/recall">
          Recall
        </Link>{" "}
        says which batches a lot went into.
      </p>
    </details>
  );
}
