import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { Select } from "../form/Select";
import { ProductChoice } from "../results/ProductChoice";
import { useAsked } from "../results/useAsked";
import { useScenario } from "../scenario/ScenarioProvider";
import { useMay } from "../session/session";
import { PagedList } from "../table/PagedList";
import { useFormat, type Format } from "../units/format";
import { bakeColumns } from "./bakeColumns";
import { ImportBake } from "./ImportBake";
import { OvenCaution } from "./OvenCaution";
import { RunLogger } from "./RunLogger";

/** The bakes of a product with a trace, and the way to another. */
export function BakesPage() {
  const format = useFormat();
  const navigate = useNavigate();
  const may = useMay("record");
  const [search, set] = useAsked();
  const { scenario } = useScenario();
  const product = search.get("of") ?? scenario.product ?? "";
  const query = product ? { product } : {};
  const batches = useQuery({
    queryKey: ["batches", "baked", product],
    queryFn: () =>
      answer(
        api.GET("/api/v1/batches", {
          params: { query: { ...query, state: "running,held,finished" } },
        }),
      ),
  }).data?.batches;
  const batch = batches?.find((one) => one.id === search.get("batch")) ?? batches?.[0];
  const open = (id: string) => void navigate(`/oven/bakes/${id}`);
  return (
    <>
      <h1>Bakes</h1>
      <p className="mt-1 max-w-3xl text-iron">
        A logger's probes say when the crumb is set: its share of the bake is what a loaf is baked
        to, not its colour.
      </p>
      <div className="mt-3 flex flex-wrap gap-x-6">
        <ProductChoice product={product} onSet={(of) => set({ of, batch: undefined })} />
      </div>
      {may && batch && (
        <section className="screen-only mt-4 border-y border-hair py-3" aria-label="New trace">
          <Select
            label="A new trace of the batch"
            className="max-w-lg"
            value={batch.id}
            options={(batches ?? []).map((one) => [one.id, nameOf(one, format)])}
            onSet={(id) => set({ batch: id })}
          />
          <div className="mt-3 grid gap-x-10 gap-y-4 lg:grid-cols-2">
            <ImportBake key={batch.id} batch={batch} onDone={open} />
            <RunLogger batch={batch.id} onDone={open} />
          </div>
        </section>
      )}
      <PagedList
        className="mt-4"
        heading="Bakes with a trace"
        queryKey={["batches", "bakes", query]}
        ask={(cursor) =>
          answer(api.GET("/api/v1/bakes", { params: { query: { ...cursor, ...query } } }))
        }
        rows={(page) => page.bakes}
        columns={bakeColumns(format)}
        rowKey={(bake) => bake.id}
        empty="No bake of it has a trace yet. Send a logger through the oven with the next batch, or take its file in here."
        more="Earlier bakes"
      />
      <OvenCaution />
    </>
  );
}

const nameOf = (batch: Schemas["BatchSummary"], format: Format) =>
  `${batch.product}, ${format.moment(batch.planned_for)}, ${batch.state}`;
