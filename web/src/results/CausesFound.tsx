import { useState, type ReactNode } from "react";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { EvidenceBar } from "../figures/EvidenceBar";
import { useFormat } from "../units/format";
import { OpenWhatIf } from "./OpenWhatIf";
import { ConfirmCause } from "./ConfirmCause";
import { shown } from "./featureValue";

type Diagnosis = Schemas["Diagnosis"];
type Cause = Schemas["CauseFound"];

interface Props {
  batch: string;
  fault: string;
  found: Diagnosis;
  /** The plant's own numbers among those it was weighed with. */
  own: Schemas["Coefficient"][];
  confirmed: Schemas["ConfirmedCases"];
  cases: Schemas["FaultCaseRecord"][];
  catalogue: Schemas["FaultCatalogue"];
}

const SURE: Partial<Record<Schemas["DiagnosisAnswer"], string>> = {
  very_likely: "Very likely",
  likely: "Likely",
  leading: "Leading",
};

/** To five per cent: house judgement deserves no more. */
const about = (probability: number) => {
  const rounded = 5 * Math.round(20 * probability);
  return rounded < 5 ? "under 5 %" : `about ${rounded} %`;
};

/** The causes in order, each with what speaks for and against it, and the change to make first. */
export function CausesFound({ batch, fault, found, own, confirmed, cases, catalogue }: Props) {
  const format = useFormat();
  const { answer, causes } = found;
  const [first] = causes;
  const figures = answer !== "too_little" && answer !== "one_family";
  const labels = new Map(catalogue.features.map((one) => [one.key, one]));
  const asks = first && found.would_decide.find((one) => one.feature === first.ask);
  return (
    <section aria-label="Causes">
      <p className="border-b-2 border-ink pb-2 text-xl leading-snug" aria-live="polite">
        {answer === "too_little" &&
          "Too little was measured to put causes in order: here they stand as the catalogue has them."}
        {answer === "one_family" &&
          "One kind of evidence only: this is the order, without figures."}
        {answer === "none_fits" && "None of the listed causes fits what was measured."}
        {answer === "no_single" &&
          `No single cause stands out: ${causes
            .slice(0, 2)
            .map((one) => one.name.toLowerCase())
            .join(", or ")}.`}
        {first && SURE[answer] && (
          <>
            <b>{SURE[answer]}</b> ({about(first.probability)}, house judgement): {first.name}
            {asks && answer === "leading" && (
              <>, until {labels.get(asks.feature)?.label ?? asks.feature} is measured</>
            )}
            .
          </>
        )}
      </p>
      {first && SURE[answer] && <Action batch={batch} cause={first} causes={causes} />}
      <ol className="mt-3">
        {causes.map((cause) => (
          <CauseRow key={cause.cause} {...{ batch, cause, figures, labels }}>
            <ConfirmCause batch={batch} fault={fault} cause={cause.cause} cases={cases} />
          </CauseRow>
        ))}
        {figures && (
          <li className="border-t border-hair py-1.5 text-iron">
            none of these <span className="float-right">{about(found.none_probability)}</span>
            <details className="text-sm">
              <summary>it was something else</summary>
              <ConfirmCause batch={batch} fault={fault} cause={null} cases={cases} />
            </details>
          </li>
        )}
      </ol>
      {confirmed.batches > 0 && (
        <p className="mt-2 text-sm">
          How often each cause is behind it begins from{" "}
          {format.count(confirmed.batches, "confirmed batch", "confirmed batches")} of{" "}
          {confirmed.of_line ? "this line" : "this process"} beside the house's judgement.
        </p>
      )}
      <p className="mt-2 text-sm text-iron">
        All weights and figures here are house judgement, nothing of them is published; evidence to
        the right of a line speaks for a cause, to the left against it.{" "}
        <Link className="link" to={`/plant/coefficients?subject=fault&fault=${fault}`}>
          Weights, thresholds and ratios
        </Link>
        {own.length > 0 &&
          `; this plant has ${format.count(own.length, "number")} of its own: ${own
            .map((one) => `${one.name} ${format.plain(one.value)} (${one.source})`)
            .join("; ")}.`}
      </p>
    </section>
  );
}

/** One change at a time, with its size and what it costs. */
function Action({ batch, cause, causes }: { batch: string; cause: Cause; causes: Cause[] }) {
  const tail = causes.find((one) => one.cause === cause.chain);
  return (
    <div className="mt-3 border-l-4 border-moss pl-4">
      <p className="text-lg">
        Change one thing: <b>{cause.action}</b>. <OpenWhatIf batch={batch} cause={cause} />
      </p>
      <p className="text-sm text-iron">
        Costs {cause.cost}.{cause.then && ` Lasting: ${cause.then}.`}
      </p>
      {tail && (
        <p className="mt-1 text-sm">
          Doughs already made: {tail.action} ({tail.name.toLowerCase()} is the same road).{" "}
          <OpenWhatIf batch={batch} cause={tail} />
        </p>
      )}
      <p className="mt-1 text-sm text-iron">
        If the fault halves in the next batch, keep it; if not, undo it before trying the next.
      </p>
    </div>
  );
}

function CauseRow({
  batch,
  cause,
  figures,
  labels,
  children,
}: {
  batch: string;
  cause: Cause;
  figures: boolean;
  labels: Map<string, Schemas["FeatureView"]>;
  children: ReactNode;
}) {
  const format = useFormat();
  const [open, setOpen] = useState(false);
  const value = (reading: Cause["readings"][number]) => {
    const feature = labels.get(reading.feature);
    const step = feature?.choices[Math.round(reading.value - feature.least)];
    return step ?? shown(format, reading.value, feature?.unit);
  };
  return (
    <li className="border-t border-hair py-1.5">
      <p className="grid grid-cols-[minmax(0,1fr)_5rem_6rem] items-baseline gap-x-4">
        <button
          type="button"
          className="link text-left font-semibold"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          {cause.name}
        </button>
        <EvidenceBar log={cause.evidence} />
        {figures && <span className="figure text-right">{about(cause.probability)}</span>}
      </p>
      {open && (
        <div className="mt-1 ml-4 text-sm">
          <p>{cause.why}</p>
          {cause.readings.length === 0 && (
            <p className="text-iron">Nothing that would tell it was measured.</p>
          )}
          <ul className="mt-1">
            {cause.readings.map((reading) => (
              <li key={reading.feature} className="flex flex-wrap items-baseline gap-x-3">
                <EvidenceBar log={reading.log_ratio} />
                <span>
                  {labels.get(reading.feature)?.label ?? reading.feature}: <b>{value(reading)}</b>,{" "}
                  {reading.log_ratio > 0 ? "speaks for it" : "speaks against it"}
                </span>
                {reading.true_pct != null && reading.ordinary_pct != null && (
                  <span className="text-iron">
                    beyond {format.plain(reading.threshold)} in {format.number(reading.true_pct, 0)}{" "}
                    % of the batches with this cause, {format.number(reading.ordinary_pct, 0)} % of
                    the ordinary ones
                    {reading.house &&
                      `, from ${format.count(reading.house.cases, "confirmed case")} here; the house takes ${format.number(reading.house.true_pct, 0)} % and ${format.number(reading.house.ordinary_pct, 0)} %`}
                  </span>
                )}
              </li>
            ))}
          </ul>
          <p className="mt-1">
            {cause.action}. <span className="text-iron">Costs {cause.cost}.</span>{" "}
            <OpenWhatIf batch={batch} cause={cause} />
          </p>
          <p className="mt-1 text-iron">
            Before any evidence it is behind {format.number(100 * cause.prior, 0)} ±{" "}
            {format.number(100 * cause.prior_sd, 0)} % of such faults.
          </p>
          {children}
        </div>
      )}
    </li>
  );
}
