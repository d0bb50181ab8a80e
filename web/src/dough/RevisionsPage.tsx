import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { readText } from "../flour/readText";
import type { Draft } from "../scenario/edited";
import { useScenario } from "../scenario/ScenarioProvider";
import { writeScenario } from "../scenario/scenario";
import { EmptyState } from "../shell/EmptyState";
import { Refusal } from "../form/Refusal";
import { useScenarioContext } from "../shell/useScenarioContext";
import { usePreferences } from "../units/preferences";
import { CompareTable } from "../table/CompareTable";
import { useFormat } from "../units/format";
import { DoughTabs } from "./DoughTabs";
import { Select } from "../form/Select";
import { PRODUCTS } from "../scenario/found";

/** A formula's revisions, compared with one another or another product's, and its files. */
export function RevisionsPage() {
  const { product } = useScenarioContext();
  return (
    <>
      <DoughTabs />
      {product ? <Revisions key={product.slug} product={product} /> : <EmptyState link="dough" />}
    </>
  );
}

function Revisions({ product }: { product: Schemas["ProductView"] }) {
  const format = useFormat();
  const { formula } = product;
  const revisions =
    useQuery({
      queryKey: ["formula revisions", formula.id, formula.revision.id],
      queryFn: () =>
        answer(
          api.GET("/api/v1/formulas/{formula_id}/revisions", {
            params: { path: { formula_id: formula.id } },
          }),
        ),
    }).data ?? [];
  const products = useQuery(PRODUCTS).data;
  const [chosen, choose] = useState<string | null>(null);
  const [other, setOther] = useState("");
  const beside = useQuery({
    queryKey: ["product", other],
    enabled: other !== "",
    queryFn: () =>
      answer(api.GET("/api/v1/products/{slug}", { params: { path: { slug: other } } })),
  }).data;
  const was = other ? beside?.formula.revision.id : (chosen ?? revisions[1]?.id);
  const compared = useQuery({
    queryKey: ["formula comparison", was, formula.revision.id],
    enabled: was !== undefined,
    queryFn: () =>
      answer(
        api.GET("/api/v1/formula-comparison", {
          params: { query: { was: was ?? "", is: formula.revision.id } },
        }),
      ),
  });
  return (
    <>
      <h1>{product.name}: revisions and files</h1>
      <div className="mt-4 grid gap-x-12 gap-y-8 lg:grid-cols-[22rem_minmax(0,1fr)]">
        <div>
          <h2>Revisions</h2>
          <ol className="mt-1">
            {revisions.map((revision, at) => (
              <li key={revision.id} className="border-t border-hair py-1.5">
                <p className="flex justify-between">
                  <b>Revision {revision.number}</b>
                  {at > 0 && (
                    <button
                      type="button"
                      className="link text-sm"
                      aria-pressed={!other && was === revision.id}
                      onClick={() => {
                        setOther("");
                        choose(revision.id);
                      }}
                    >
                      Compare
                    </button>
                  )}
                </p>
                <p className="text-sm text-iron">
                  {format.date(revision.made_at)}, {revision.made_by}: {revision.reason}
                </p>
              </li>
            ))}
          </ol>
          <Select
            label="Or beside another product"
            className="mt-4"
            value={other}
            options={[
              ["", "none"],
              ...(products ?? [])
                .filter((one) => one.slug !== product.slug)
                .map((one) => [one.slug, one.name] as const),
            ]}
            onSet={setOther}
          />
          <Files product={product} />
        </div>
        <div>
          {compared.data ? (
            <Compared found={compared.data} />
          ) : (
            <p className="text-iron">
              There is one revision so far. Edit the formula and record it, and the two stand here
              side by side, differences first; or choose another product.
            </p>
          )}
          <Refusal error={compared.error} />
        </div>
      </div>
    </>
  );
}

function Compared({ found }: { found: Schemas["ComparedFormulas"] }) {
  const format = useFormat();
  const { was, is, rows } = found;
  const name = (one: Schemas["FormulaView"]) => `${one.name} ${one.revision.number}`;
  const figure = (value: number | null | undefined, unit: string) => {
    if (value == null) return "–";
    if (unit === "kg") return format.mass(value, 0.001);
    return unit.startsWith("%") ? format.share(value) : format.figure(value, unit);
  };
  return (
    <CompareTable
      caption={`${name(was)} beside ${name(is)}`}
      heads={[
        { key: "was", head: name(was) },
        { key: "is", head: name(is) },
        { key: "by", head: "by" },
      ]}
      groups={[
        {
          rows: rows.map((row) => ({
            key: row.label,
            label: row.label,
            differs: row.delta != null,
            cells: [
              figure(row.was, row.unit),
              figure(row.is, row.unit),
              row.delta != null &&
                (row.delta > 0 ? "+" : "") + figure(row.delta, row.unit).replace(" %", ""),
            ],
          })),
        },
      ]}
    />
  );
}

/** The formula as a file, and a file taken over as an edited formula. */
function Files({ product }: { product: Schemas["ProductView"] }) {
  const navigate = useNavigate();
  const { edit, newest } = useScenario();
  const { preferences } = usePreferences();
  const revision = product.formula.revision.id;
  const read = useMutation({
    networkMode: "always",
    mutationFn: async (file: File) =>
      answer(
        api.POST("/api/v1/formula-file", {
          params: { query: { decimal_mark: preferences.mark } },
          body: await readText(file),
          bodySerializer: (body: string) => body,
        }),
      ),
    onSuccess: (found) => {
      const { draft, style_points, piece_kg, losses, hydration_pct, batch_kg } = found;
      edit({
        ...(draft as Draft),
        style_points,
        piece_kg,
        losses,
        ...(hydration_pct != null && { hydration_pct }),
        ...(batch_kg != null && { batch_kg }),
      });
      void navigate({ pathname: "/dough", search: writeScenario(newest().scenario).toString() });
    },
  });
  return (
    <section aria-labelledby="files" className="mt-8">
      <h2 id="files">Files</h2>
      <p className="mt-1 flex gap-4">
        <a className="link" href={`/api/v1/formula-revisions/${revision}/file/json`} download>
          Save as JSON
        </a>
        <a className="link" href={`/api/v1/formula-revisions/${revision}/file/csv`} download>
          Save as CSV
        </a>
      </p>
      <label className="mt-3 block text-sm text-iron">
        Import a formula file into {product.name}
        <input
          type="file"
          accept=".json,.csv,text/csv,application/json"
          className="mt-1 block w-full text-ink"
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) read.mutate(file);
            event.target.value = "";
          }}
        />
      </label>
      <p className="mt-1 text-sm text-iron">
        It comes in as an edited formula, to be looked at and recorded or put back.
      </p>
      <Refusal error={read.error} />
    </section>
  );
}
