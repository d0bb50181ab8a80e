import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate, useParams } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { ProductChoice } from "../results/ProductChoice";
import { ResultsTabs } from "../results/ResultsTabs";
import { useAsked } from "../results/useAsked";
import { useScenario } from "../scenario/ScenarioProvider";
import { useMay } from "../session/session";
import { batchColumns } from "../start/batchColumns";
import { PagedList } from "../table/PagedList";
import type { Column } from "../table/DataTable";
import { useFormat, type Format } from "../units/format";
import { PanelSheet } from "./PanelSheet";
import { Samples } from "./Samples";

/** What judges said: of one batch, or which batches were judged. */
export function ScoresPage() {
  const { id } = useParams();
  return (
    <>
      <ResultsTabs />
      {id ? <BatchScores key={id} id={id} /> : <JudgedBatches />}
    </>
  );
}

const columns = (format: Format): Column<Schemas["BatchSummary"]>[] => [
  ...batchColumns(format),
  {
    head: "score",
    of: (batch) => batch.score ?? "",
    show: (batch) => (
      <Link className="link" to={`/results/scores/${batch.id}`}>
        {batch.score == null ? "judge it" : format.number(batch.score, 0)}
      </Link>
    ),
    figures: true,
  },
  { head: "lot", of: (batch) => batch.lot },
  { head: "line", of: (batch) => batch.line },
];

function JudgedBatches() {
  const format = useFormat();
  const [search, set] = useAsked();
  const { scenario } = useScenario();
  const product = search.get("of") ?? scenario.product ?? "";
  const query = { state: "finished", ...(product && { product }) };
  return (
    <>
      <h1 className="sr-only">Scores</h1>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <ProductChoice product={product} onSet={(of) => set({ of })} />
        <p className="ml-auto flex gap-4">
          {product && (
            <Link className="link" to={`/results/standard?of=${product}`}>
              What it is held to
            </Link>
          )}
          <Link className="act act-main" to="/judge">
            Judge a sample
          </Link>
        </p>
      </div>
      <PagedList
        className="mt-3"
        heading="Finished batches"
        queryKey={["batches", "judged", query]}
        ask={(cursor) =>
          answer(api.GET("/api/v1/batches", { params: { query: { ...cursor, ...query } } }))
        }
        rows={(page) => page.batches}
        columns={columns(format)}
        rowKey={(batch) => batch.id}
        empty="Nothing is baked yet. A batch is judged once it is finished, under codes that do not say which it is."
        more="Earlier batches"
      />
    </>
  );
}

function BatchScores({ id }: { id: string }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const may = useMay("record");
  const { data: found, error } = useQuery({
    queryKey: ["batches", "scores", id],
    queryFn: () =>
      answer(api.GET("/api/v1/batches/{batch_id}/scores", { params: { path: { batch_id: id } } })),
  });
  if (error)
    return (
      <div role="alert" className="py-6">
        <h1>No such batch</h1>
        <p className="mt-2">{error.message}.</p>
      </div>
    );
  if (!found)
    return <h1 className="py-10 text-base font-normal text-iron">Fetching the marks …</h1>;
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-6">
        <h1>Scores of {found.product}</h1>
        <Link className="link" to={`/batches/${id}`}>
          its batch
        </Link>
        <Link className="link" to={`/results/faults?batch=${id}`}>
          Find the cause of a fault
        </Link>
        <Link className="link ml-auto" to={`/results/standard?of=${found.slug}`}>
          What it is held to
        </Link>
      </div>
      {found.panel ? (
        <PanelSheet panel={found.panel} lines={found.lines} />
      ) : (
        <p className="mt-3 max-w-3xl text-iron">
          Nobody has judged it yet. Set loaves out under codes; each judge opens a code's sheet,
          alone, and the marks meet here.
        </p>
      )}
      <Samples
        at={`/api/v1/batches/${id}/samples`}
        onSetOut={() => queries.invalidateQueries({ queryKey: ["batches"] })}
        samples={found.samples}
        scores={found.scores}
        photographs={found.photographs}
        may={may}
        onJudge={(code) => void navigate(`/judge/${code}`)}
      />
    </>
  );
}
