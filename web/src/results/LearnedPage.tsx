import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { record } from "../api/outbox";
import { LearnedBand } from "../figures/LearnedBand";
import { FieldText } from "../form/FieldText";
import { Form } from "../form/Form";
import { Select } from "../form/Select";
import { useScenario } from "../scenario/ScenarioProvider";
import { useMay } from "../session/session";
import { useScenarioContext } from "../shell/useScenarioContext";
import { useFormat } from "../units/format";
import { PRODUCTS } from "../scenario/found";
import { ResultsTabs } from "./ResultsTabs";
import { useAsked } from "./useAsked";

type Learned = Schemas["LearnedView"];

/** The plant's own numbers as its batches teach them. */
export function LearnedPage() {
  const [search, set] = useAsked();
  const { scenario } = useScenario();
  const products = useQuery(PRODUCTS).data;
  const product = search.get("of") ?? scenario.product ?? products?.[0]?.slug ?? "";
  const { data: learned } = useQuery({
    queryKey: ["batches", "learned", product],
    enabled: product !== "",
    queryFn: () => answer(api.GET("/api/v1/learned-numbers", { params: { query: { product } } })),
  });
  return (
    <>
      <ResultsTabs />
      <h1 className="sr-only">Learned numbers</h1>
      <div className="w-72">
        <Select
          label="Product"
          value={product}
          options={(products ?? []).map((one) => [one.slug, one.name] as const)}
          onSet={(of) => set({ of })}
        />
      </div>
      {learned?.map((one) => (
        <LearnedNumber key={`${product} ${one.subject}`} learned={one} product={product} />
      ))}
    </>
  );
}

function LearnedNumber({ learned, product }: { learned: Learned; product: string }) {
  const format = useFormat();
  const { offer, unit } = learned;
  const out = offer.history.filter((step) => step.left_out);
  return (
    <section className="mt-6 border-t-2 border-ink pt-2" aria-label={learned.label}>
      <div className="flex flex-wrap items-baseline gap-x-6">
        <h2 className="text-lg">{learned.label}</h2>
        <p className="text-iron">{learned.of}</p>
        <p className="ml-auto">
          <b className="figure text-xl">{format.figure(offer.mean, unit)}</b>, likely{" "}
          {format.number(offer.low, 2)} to {format.number(offer.high, 2)}, from{" "}
          {format.count(offer.used, "batch", "batches")}
        </p>
      </div>
      {offer.history.every((step) => step.value == null) ? (
        <p className="mt-1 text-iron">
          No batch has told anything of it yet: it is what the house expects. Water that is weighed
          and added, a consistency, temperatures and a mass at the finish teach it.
        </p>
      ) : (
        <>
          <LearnedBand learned={learned} />
          <p className="text-sm text-iron">
            {offer.hits.inside} of the last {format.count(offer.hits.of, "batch", "batches")} that
            told something lay inside the band in which nine in ten were expected
            {offer.hits.of >= 20 && offer.hits.inside < 0.8 * offer.hits.of && (
              <b className="text-crust">: the band is too narrow, do not trust it</b>
            )}
            .
          </p>
        </>
      )}
      {offer.changed_since && (
        <p className="text-crust">
          <b>Changed since {format.moment(offer.changed_since)}:</b> three batches in a row lay
          beyond what was believed, all on one side.
        </p>
      )}
      {learned.can_be_taken && <TakeOver learned={learned} product={product} />}
      {out.length > 0 && (
        <details className="mt-2 text-sm">
          <summary>{format.count(out.length, "batch", "batches")} left out, and why</summary>
          <ul>
            {out.map((step) => (
              <li key={step.batch} className="border-t border-hair py-1">
                <Link className="link" to={`/batches/${step.batch}`}>
                  {format.moment(step.at)}
                </Link>
                {step.value != null && `, ${format.figure(step.value, unit)}`}: {step.left_out}
              </li>
            ))}
          </ul>
        </details>
      )}
      {learned.revisions.length > 0 && (
        <details className="mt-2 text-sm">
          <summary>{format.count(learned.revisions.length, "revision")}</summary>
          <ol>
            {learned.revisions.map((one) => (
              <li key={one.id} className="border-t border-hair py-1">
                {one.number}: {one.value == null ? "reset" : format.figure(one.value, unit)},{" "}
                {one.saved_by}, {format.moment(one.saved_at)}: {one.reason}
              </li>
            ))}
          </ol>
        </details>
      )}
    </section>
  );
}

/** Takes the offered value over, with what it would change tonight; or puts it back. */
function TakeOver({ learned, product }: { learned: Learned; product: string }) {
  const format = useFormat();
  const queries = useQueryClient();
  const may = useMay("change");
  const { chain, product: selected } = useScenarioContext();
  const [reason, setReason] = useState("");
  const next = (learned.revisions[0]?.number ?? 0) + 1;
  const save = useMutation({
    networkMode: "always",
    mutationFn: (said: { value?: number; begins_at?: string }) =>
      record<Schemas["LearnedRevision"]>({
        path: `/api/v1/learned-numbers/${crypto.randomUUID()}`,
        label: `${learned.label}, revision ${next}`,
        body: {
          subject: learned.subject,
          product,
          number: next,
          ...said,
          signed: { reason },
        },
      }),
    onSuccess: async () => {
      setReason("");
      await queries.invalidateQueries();
    },
  });
  if (!may) return null;
  const tonight =
    chain?.dough && selected?.slug === product
      ? ((learned.offer.mean - (learned.in_use ?? 0)) * chain.dough.flour_kg) / 100
      : undefined;
  return (
    <Form
      label={`Take over the ${learned.label.toLowerCase()}`}
      error={save.error}
      className="mt-2 max-w-3xl"
      onSubmit={() => save.mutate({ value: learned.offer.mean })}
    >
      <p>
        {learned.in_use == null
          ? "Nobody took it over: the sheet does not use it."
          : `In use on the sheet: ${format.figure(learned.in_use, learned.unit)}.`}{" "}
        {tonight !== undefined &&
          `Taken over, tonight's ${selected?.name ?? "dough"} gets ${format.signed(tonight, 2)} kg of water.`}
      </p>
      <div className="flex flex-wrap items-end gap-4">
        <div className="min-w-72 flex-1">
          <FieldText label="Reason" value={reason} onChange={setReason} />
        </div>
        <button
          type="submit"
          className="act act-main"
          disabled={save.isPending || !reason.trim() || learned.offer.used === 0}
        >
          Take over {format.figure(learned.offer.mean, learned.unit)}
        </button>
        {learned.in_use != null && (
          <button
            type="button"
            className="act"
            disabled={save.isPending || !reason.trim()}
            onClick={() => save.mutate({})}
          >
            Reset
          </button>
        )}
        {learned.offer.changed_since && (
          <button
            type="button"
            className="act"
            disabled={save.isPending || !reason.trim()}
            onClick={() => save.mutate({ begins_at: learned.offer.changed_since ?? "" })}
          >
            Begin again from {format.date(learned.offer.changed_since)}
          </button>
        )}
      </div>
    </Form>
  );
}
