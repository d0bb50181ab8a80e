import { Link } from "react-router";
import { FileChoice } from "../form/FileChoice";
import { FileSays } from "../form/FileSays";
import { useTakeCertificate } from "./takeCertificate";
import { useScenario } from "../scenario/ScenarioProvider";

/** Says how a certificate is taken in: dropped anywhere on the page, chosen, or typed. */
export function DropCertificate() {
  const { state, take } = useTakeCertificate();
  const { search } = useScenario();
  return (
    <div className="mt-2 border-2 border-dashed border-hair p-4">
      <p>
        Drop a certificate of analysis anywhere on the page (CSV, XLSX, ODS, PDF),{" "}
        <FileChoice
          accept=".csv,.txt,.xlsx,.xlsm,.xls,.ods,.pdf,text/csv,text/plain,application/pdf"
          onFile={(file) => void take(file)}
        />
        , or{" "}
        <Link className="link" to={{ pathname: "/flour/receive", search }}>
          type it in
        </Link>
        , or take{" "}
        <Link className="link" to={{ pathname: "/flour/bag", search }}>
          a flour from a bag
        </Link>
        .
      </p>
      <FileSays state={state} />
    </div>
  );
}
