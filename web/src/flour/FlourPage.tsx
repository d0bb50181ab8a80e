import { Link, useNavigate } from "react-router";
import { useScenarioContext } from "../shell/useScenarioContext";
import { AssumedReadings } from "./AssumedReadings";
import { useScenario } from "../scenario/ScenarioProvider";
import { useLot } from "../scenario/useChain";
import { Refusal } from "../form/Refusal";
import { VERDICT } from "../shell/verdict";
import { useFormat } from "../units/format";
import { CertificateTable } from "./CertificateTable";
import { DISPOSITION } from "../shell/disposition";
import { startCorrection } from "./draft";
import { DropCertificate } from "./DropCertificate";
import { FlourTabs } from "./FlourTabs";
import { LotDisposition } from "./LotDisposition";
import { Classification } from "./Classification";

/** The selected lot: its certificate beside the flour's specification. */
export function FlourPage() {
  const { scenario, search } = useScenario();
  const { chain } = useScenarioContext();
  const { data: lot, error } = useLot(scenario.lot);
  const format = useFormat();
  const navigate = useNavigate();
  if (scenario.lot && !lot) {
    return (
      <>
        <FlourTabs />
        <Refusal error={error} />
      </>
    );
  }
  if (!lot) {
    return (
      <div className="max-w-2xl">
        <FlourTabs />
        <h1>No lot selected</h1>
        <p className="mt-2">
          A lot is one delivery of flour with its certificate of analysis. Take one in here, or{" "}
          <Link to="/" className="link">
            choose one that is on record
          </Link>
          .
        </p>
        <DropCertificate />
      </div>
    );
  }
  const { certificate } = lot;
  const assessment = certificate.assessment;
  const verdict = assessment && VERDICT[assessment.verdict];
  const { decision, stock } = lot.status;
  const facts: [string, string][] = [
    [
      "milled",
      lot.milled_on
        ? `${format.date(lot.milled_on)}, ${format.count(lot.age_days ?? 0, "day")} ago`
        : "not stated",
    ],
    ["delivered", lot.delivered_on ? format.date(lot.delivered_on) : "not stated"],
    ["received", lot.tonnes == null ? "not stated" : format.tonnes(lot.tonnes)],
    ["stock", stock ? `${format.tonnes(stock.tonnes_left)} in ${stock.place}` : "not stated"],
    ["certificate", `revision ${lot.revision.number}, ${lot.revision.made_by}`],
    [
      "specification",
      certificate.specification ? `revision ${certificate.specification.number}` : "none",
    ],
  ];
  return (
    <>
      <FlourTabs />
      <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
        <div>
          <h1>{lot.code}</h1>
          <p className="text-sm text-iron">
            {[lot.flour.name, lot.flour.note].filter(Boolean).join(", ")} · {lot.flour.mill}
          </p>
        </div>
        {verdict && (
          <p className={verdict.colour}>
            <span className="figure text-4xl">
              {verdict.mark} {verdict.word}
            </span>
            <span className="block text-sm text-iron">
              {decision
                ? (DISPOSITION[decision.decision]?.word ?? decision.decision)
                : "no release decision"}
              {decision?.reason && `: ${decision.reason}`}
            </span>
          </p>
        )}
        <dl className="flex flex-wrap gap-x-6 text-sm">
          {facts.map(([name, text]) => (
            <div key={name}>
              <dt className="text-iron">{name}</dt>
              <dd>{text}</dd>
            </div>
          ))}
        </dl>
        <button
          type="button"
          className="act ml-auto"
          onClick={() => {
            startCorrection(lot, lot.tonnes == null ? "" : format.plain(lot.tonnes));
            void navigate({ pathname: "/flour/receive", search });
          }}
        >
          Correct this certificate
        </button>
        <p className="flex gap-4 text-sm">
          <Link className="link" to={{ pathname: "/flour/label", search }}>
            Lot label
          </Link>
          <Link className="link" to={`/results/recall?recall=${lot.id}&code=${lot.code}`}>
            Batches of this lot
          </Link>
        </p>
      </div>
      <div className="mt-5">
        <CertificateTable certificate={certificate} />
      </div>
      <p className="mt-2 text-sm text-iron">
        Shaded: wanted. Hatched: within what the method repeats to, a house default. Open triangle:
        target. Ring or dot: this lot. Faint marks: earlier lots.
      </p>
      <AssumedReadings assumed={chain?.flour.assumed ?? []} />
      {lot.age_message && <p className="mt-2 text-crust">The flour {lot.age_message}.</p>}
      <LotDisposition key={lot.id} lot={lot} />
      {decision && ["hold", "reject"].includes(decision.decision) && (
        <p className="mt-3">
          <Link className="act" to={{ pathname: "/flour/report", search }}>
            Report to the mill
          </Link>
        </p>
      )}
      <Classification lot={lot} />
      <div className="mt-6 max-w-xl">
        <h2>Next delivery</h2>
        <DropCertificate />
      </div>
    </>
  );
}
