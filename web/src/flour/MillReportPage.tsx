import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { chainOf, lotOf } from "../scenario/questions";
import { useLot, useLotsOf } from "../scenario/useChain";
import { useScenario } from "../scenario/ScenarioProvider";
import { DISPOSITION } from "../shell/disposition";
import { useScenarioContext } from "../shell/useScenarioContext";
import { VERDICT } from "../shell/verdict";
import { useFormat } from "../units/format";
import { BASES } from "./bases";
import { FlourTabs } from "./FlourTabs";
import { NoLot } from "./NoLot";

/** A page to send to the mill: what the lot has, what was asked, and what it did to the dough. */
export function MillReportPage() {
  const { scenario } = useScenario();
  const { data: lot } = useLot(scenario.lot);
  const format = useFormat();
  if (!lot)
    return (
      <>
        <FlourTabs />
        <NoLot />
      </>
    );
  const { decision } = lot.status;
  const { certificate } = lot;
  const checks = certificate.assessment?.checks ?? [];
  const methodOf = (property: string) =>
    certificate.rows.find((row) => row.property === property)?.written.method;
  const facts = [
    ["mill", lot.flour.mill],
    ["flour", lot.flour.name],
    ["milled", lot.milled_on ? format.date(lot.milled_on) : "not stated"],
    ["delivered", lot.delivered_on ? format.date(lot.delivered_on) : "not stated"],
    ["received", lot.tonnes == null ? "not stated" : format.tonnes(lot.tonnes)],
    [
      "specification",
      certificate.specification ? `revision ${certificate.specification.number}` : "none",
    ],
  ];
  return (
    <>
      <FlourTabs />
      <article className="max-w-4xl border border-hair bg-sheet p-6 print:max-w-none print:border-0 print:p-0">
        <h1>Report to the mill: lot {lot.code}</h1>
        {decision && (
          <p className="mt-1 text-lg">
            <b>{DISPOSITION[decision.decision]?.word}</b>, {format.date(decision.made_at)},{" "}
            {decision.made_by}
            {decision.reason && `: ${decision.reason}`}
          </p>
        )}
        <dl className="mt-3 flex flex-wrap gap-x-8 text-sm">
          {facts.map(([name, text]) => (
            <div key={name}>
              <dt className="text-iron">{name}</dt>
              <dd>{text}</dd>
            </div>
          ))}
        </dl>
        <table className="mt-4 w-full">
          <caption className="sr-only">Readings against the specification</caption>
          <thead>
            <tr className="border-b border-ink">
              <th scope="col">property</th>
              <th scope="col" className="text-right">
                lot
              </th>
              <th scope="col" className="pl-3">
                basis
              </th>
              <th scope="col" className="pl-3">
                method
              </th>
              <th scope="col" className="pl-3">
                wanted
              </th>
              <th scope="col" className="pl-3">
                verdict
              </th>
            </tr>
          </thead>
          <tbody>
            {checks.map((check) => (
              <tr key={check.property} className="border-b border-hair">
                <th scope="row" className="py-1 text-base font-normal text-ink">
                  {check.label}
                </th>
                <td className="figure text-right whitespace-nowrap">
                  {check.value == null
                    ? "–"
                    : `${format.plain(Number(check.value.toFixed(3)))} ${check.unit}`}
                </td>
                <td className="pl-3 text-sm">{check.basis ? BASES[check.basis] : ""}</td>
                <td className="pl-3 text-sm">{methodOf(check.property)}</td>
                <td className="pl-3 text-sm">
                  {wanted(check, format.plain.bind(format))}
                  {!check.must && ", should"}
                </td>
                <td className={`pl-3 text-sm ${VERDICT[check.verdict].colour}`}>
                  {VERDICT[check.verdict].mark} {format.text(check.message)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {checks.length === 0 && <p className="mt-3">Nothing is asked of this flour yet.</p>}
        <InTheDough lot={lot} />
      </article>
      <p className="screen-only mt-4 flex gap-3">
        <button type="button" className="act act-main" onClick={() => window.print()}>
          Print report
        </button>
        <a className="act" href={`/api/v1/lots/${lot.id}/report/csv`}>
          Save as CSV
        </a>
      </p>
    </>
  );
}

function wanted(check: Schemas["RequirementCheck"], plain: (value: number) => string) {
  const { min, max } = check;
  if (min != null && max != null) return `${plain(min)} to ${plain(max)}`;
  if (min != null) return `${plain(min)} at least`;
  return max == null ? "" : `${plain(max)} at most`;
}

/** What the lot does to the selected product, beside the flour's usual lot. */
function InTheDough({ lot }: { lot: Schemas["LotView"] }) {
  const { product, input } = useScenarioContext();
  const format = useFormat();
  const usual = useLotsOf(lot.flour.id).data?.usual;
  const beside = useQuery({ ...lotOf(usual ?? ""), enabled: usual != null }).data;
  const before =
    input && beside && beside.id !== lot.id
      ? {
          ...input,
          revision_refs: { ...input.revision_refs, lot_revision_id: beside.revision.id },
        }
      : null;
  const moved = useQuery({ ...chainOf(before && input, before) }).data?.changes;
  if (!product || !beside || !moved) return null;
  return (
    <section aria-labelledby="in-the-dough" className="mt-5">
      <h2 id="in-the-dough">
        What it does to {product.name}, beside lot {beside.code}
      </h2>
      {moved.length === 0 && <p className="mt-1">Nothing that is computed.</p>}
      <ul className="mt-1">
        {moved.map((move) => (
          <li key={move.figure} className="border-b border-hair py-1">
            {move.label}: {format.figure(move.before, move.unit)} →{" "}
            <b>{format.figure(move.after, move.unit)}</b>
            {move.because.length > 0 && (
              <span className="text-sm text-iron">
                {" "}
                {move.because
                  .map((one) => `${format.figure(one.delta, one.unit, true)} ${one.label}`)
                  .join("; ")}
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
