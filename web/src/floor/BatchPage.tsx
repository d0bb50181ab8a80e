import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { answer, api, isFinal } from "../api/client";
import { useFormat } from "../units/format";
import { MixingSheet } from "./MixingSheet";
import { releasedBy } from "./release";

/** A planned batch: the sheet as it was issued. */
export function BatchPage() {
  const { id = "" } = useParams();
  const format = useFormat();
  const { data: batch, error } = useQuery({
    queryKey: ["batch", id],
    queryFn: () =>
      answer(api.GET("/api/v1/batches/{batch_id}", { params: { path: { batch_id: id } } })),
  });
  if (error && !batch) {
    return (
      <div className="max-w-xl py-10" role="alert">
        <h1>{isFinal(error) ? "No such batch" : "The server does not answer"}</h1>
        <p className="mt-2">
          {error.message}.{" "}
          <Link to="/" className="link">
            The planned ones are on the first page.
          </Link>
        </p>
      </div>
    );
  }
  if (!batch) return <p className="py-10 text-iron">Looking for the batch …</p>;
  const { issued } = batch;
  return (
    <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_17rem] print:block">
      <MixingSheet
        chain={issued.chain}
        head={{
          product: issued.product,
          line: issued.line,
          process: issued.process,
          lot: issued.lot,
          flour: [
            `${issued.flour}, ${issued.mill}`,
            ...issued.other_lots.map((other) => `${other.flour} ${other.lot}`),
          ].join(", with "),
          when: format.moment(batch.planned_for),
          asked: issued.specification_number != null,
          address: `/batches/${batch.id}/run`,
          release: (issued.releases ?? []).map((one) => releasedBy(format, one.lot, one)),
          revisions: `Batch ${batch.id.slice(0, 8)} · ${issued.specification_number == null ? "no specification" : `specification ${issued.specification_number}`}, lot ${issued.lot_number}, formula ${issued.formula_number}, method ${issued.method_number}, line ${issued.line_number} · planned by ${batch.saved_by}, ${format.moment(batch.saved_at)}`,
        }}
      />
      <aside className="screen-only self-start">
        <Link to={`/batches/${batch.id}/run`} className="act act-main block w-full text-center">
          {batch.state === "planned" ? "Run this batch" : `Open on the floor: ${batch.state}`}
        </Link>
        <button type="button" className="act mt-2 w-full" onClick={() => window.print()}>
          Print sheet
        </button>
        <p className="mt-2">
          <Link to={`/results/compare?batches=${batch.id}`} className="link text-sm">
            Compare with its plan
          </Link>
        </p>
        <p>
          <Link to={`/results/faults?batch=${batch.id}`} className="link text-sm">
            Find the cause of a fault
          </Link>
        </p>
        <h2 className="mt-6">Revisions</h2>
        <dl className="mt-1 text-sm">
          {(
            [
              ["lot", `${issued.lot}, revision ${issued.lot_number}`],
              ...issued.other_lots.map(
                (other) => [other.flour, `${other.lot}, revision ${other.lot_number}`] as const,
              ),
              [
                "specification",
                issued.specification_number == null
                  ? "none"
                  : `${issued.flour}, revision ${issued.specification_number}`,
              ],
              ["formula", `revision ${issued.formula_number}`],
              ["method", `revision ${issued.method_number}`],
              ["line", `${issued.line}, revision ${issued.line_number}`],
            ] as const
          ).map(([name, text]) => (
            <div key={name} className="flex justify-between border-t border-hair py-1">
              <dt className="text-iron">{name}</dt>
              <dd>{text}</dd>
            </div>
          ))}
        </dl>
        <p className="mt-3 text-sm text-iron">
          A record of what was handed to the floor: later changes to lot, formula or defaults do not
          reach it.
        </p>
        <p className="mt-4">
          <Link className="link text-sm" to={`/dough?product=${batch.slug}`}>
            Plan another {issued.product}
          </Link>
        </p>
      </aside>
    </div>
  );
}
