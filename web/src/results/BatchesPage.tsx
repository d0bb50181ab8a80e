import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { DayField } from "../form/DayField";
import { Select } from "../form/Select";
import { FAULTS, LINES } from "../scenario/found";
import { STATION_PEOPLE } from "../session/station";
import { batchColumns } from "../start/batchColumns";
import { SearchField } from "../plant/SearchField";
import type { Column } from "../table/DataTable";
import { PagedList } from "../table/PagedList";
import { dayOf } from "../units/clock";
import { useFormat, type Format } from "../units/format";
import { ProductChoice } from "./ProductChoice";
import { DriftsNotice } from "./Drifts";
import { ResultsTabs } from "./ResultsTabs";
import { useAsked } from "./useAsked";

type Batch = Schemas["BatchSummary"];

const STATES = ["planned", "running", "held", "finished", "scrapped"] as const;

/** What the address calls it, and what the server does. */
const ASKED = {
  q: "search",
  state: "state",
  line: "line",
  person: "person",
  code: "lot",
  since: "from",
  until: "to",
  score: "score_below",
  fault: "fault",
} as const;

/** Totals below which batches are looked for. */
const SCORES = ["60", "70", "80", "90"] as const;

/** Columns that can be left out, by what they are called. */
const figures = (format: Format): Column<Batch>[] => {
  const figure = (head: string, of: (batch: Batch) => number | null | undefined, unit: string) => ({
    head,
    of: (batch: Batch) => of(batch) ?? "",
    show: (batch: Batch) => {
      const value = of(batch);
      if (value == null) return "";
      return unit ? format.figure(value, unit) : format.number(value, 0);
    },
    figures: true,
  });
  return [
    figure("dough", (one) => one.dough_c, "°C"),
    figure("water over plan", (one) => one.water_pts, "points"),
    figure("mixing energy", (one) => one.mixing_kj_per_kg, "kJ/kg"),
    figure("proof", (one) => one.proof_min, "min"),
    figure("loss", (one) => one.loss_pct, "%"),
    figure("good pieces", (one) => one.pieces_good, ""),
    figure("rejected", (one) => one.pieces_rejected, ""),
    figure("arrival", (one) => one.arrival_pct, "%"),
    figure("score", (one) => one.score, ""),
  ];
};

const USUAL = ["dough", "water over plan", "loss", "rejected", "score"];

/** Every batch, searched and filtered. */
export function BatchesPage() {
  const format = useFormat();
  const [search, set] = useAsked();
  const lines = useQuery(LINES).data;
  const people = useQuery(STATION_PEOPLE).data;
  const faults = useQuery(FAULTS).data?.faults;
  const [columns, setColumns] = useState(USUAL);
  const [chosen, setChosen] = useState<string[]>([]);
  const asked = Object.fromEntries(
    (Object.keys(ASKED) as (keyof typeof ASKED)[]).flatMap((key) => {
      const value = search.get(key);
      const asks = key === "since" || key === "until" ? dayOf(value ?? "")?.from : value;
      return asks ? [[ASKED[key], asks]] : [];
    }),
  );
  const product = search.get("of");
  const query = { ...asked, ...(product && { product }) };
  const choose = (id: string) =>
    setChosen((now) =>
      now.includes(id) ? now.filter((one) => one !== id) : [...now, id].slice(-4),
    );
  const all: Column<Batch>[] = [
    {
      head: "compare",
      of: (batch) => batch.id,
      show: (batch) => (
        <input
          type="checkbox"
          aria-label={`Compare ${batch.product} of ${format.moment(batch.planned_for)}`}
          checked={chosen.includes(batch.id)}
          onChange={() => choose(batch.id)}
        />
      ),
    },
    ...batchColumns(format),
    { head: "state", of: (batch) => batch.state },
    { head: "line", of: (batch) => batch.line },
    { head: "lot", of: (batch) => batch.lot },
    ...figures(format).filter((column) => columns.includes(column.head)),
  ];
  const file = (as: string) =>
    `/api/v1/batch-export?${new URLSearchParams({ format: as, ...query }).toString()}`;
  return (
    <>
      <ResultsTabs />
      <DriftsNotice />
      <h1 className="sr-only">Batches</h1>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <SearchField of="batches" placeholder="product, lot, flour or line" />
        <ProductChoice product={product ?? ""} onSet={(of) => set({ of })} />
        <Select
          label="State"
          value={search.get("state") ?? ""}
          options={[["", "every state"], ...STATES.map((state) => [state, state] as const)]}
          onSet={(state) => set({ state })}
        />
        <Select
          label="Line"
          value={search.get("line") ?? ""}
          options={[["", "every line"], ...(lines ?? []).map((one) => [one.id, one.name] as const)]}
          onSet={(line) => set({ line })}
        />
        <Select
          label="Recorded by"
          value={search.get("person") ?? ""}
          options={[["", "anybody"], ...(people ?? []).map((one) => [one.id, one.name] as const)]}
          onSet={(person) => set({ person })}
        />
        <Select
          label="Score"
          value={search.get("score") ?? ""}
          options={[["", "any"], ...SCORES.map((most) => [most, `below ${most}`] as const)]}
          onSet={(score) => set({ score })}
        />
        <Select
          label="Fault"
          value={search.get("fault") ?? ""}
          options={[["", "any"], ...(faults ?? []).map((one) => [one.key, one.name] as const)]}
          onSet={(fault) => set({ fault })}
        />
        <DayField
          label="Planned from"
          value={search.get("since") ?? ""}
          onSet={(since) => set({ since })}
        />
        <DayField
          label="Before"
          value={search.get("until") ?? ""}
          onSet={(until) => set({ until })}
        />
        <p className="ml-auto flex gap-4 text-sm">
          <a className="link" href={file("csv")} download>
            CSV
          </a>
          <a className="link" href={file("json")} download>
            JSON with every event
          </a>
        </p>
      </div>
      <details className="mt-2 text-sm">
        <summary>Columns</summary>
        <p className="flex flex-wrap gap-x-4">
          {figures(format).map(({ head }) => (
            <label key={head}>
              <input
                type="checkbox"
                checked={columns.includes(head)}
                onChange={() =>
                  setColumns((now) =>
                    now.includes(head) ? now.filter((one) => one !== head) : [...now, head],
                  )
                }
              />{" "}
              {head}
            </label>
          ))}
        </p>
      </details>
      {chosen.length > 0 && (
        <p className="mt-2">
          <Link className="act" to={`/results/compare?batches=${chosen.join(",")}`}>
            {chosen.length === 1 ? "Compare with its plan" : `Compare ${chosen.length} batches`}
          </Link>
        </p>
      )}
      <PagedList
        className="mt-3"
        heading="Batches"
        queryKey={["batches", query]}
        ask={(cursor) =>
          answer(api.GET("/api/v1/batches", { params: { query: { ...cursor, ...query } } }))
        }
        rows={(page) => page.batches}
        columns={all}
        rowKey={(batch) => batch.id}
        empty="No batch is like that. Plan one from the mixing sheet, under Floor, and it stands here."
        more="Earlier batches"
      />
    </>
  );
}
