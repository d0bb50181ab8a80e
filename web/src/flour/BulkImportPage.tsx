import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { asProblem, type Schemas } from "../api/client";
import { FieldText } from "../form/FieldText";
import { Author } from "../form/Author";
import { usePreferences } from "../units/preferences";
import { FileChoice } from "../form/FileChoice";
import { FlourTabs } from "./FlourTabs";
import { ImportProgress } from "./ImportProgress";
import { MappingTable } from "./MappingTable";
import { readText } from "./readText";
import { useImport } from "./useImport";

/** Rows read for the preview. */
const PREVIEW_BYTES = 200_000;

/** Bulk import: a mill's own table, mapped once and remembered, or our own JSON. */
export function BulkImportPage() {
  const queries = useQueryClient();
  const { preferences } = usePreferences();
  const [file, setFile] = useState<File>();
  const [preview, setPreview] = useState<Schemas["TablePreview"]>();
  const [mill, setMill] = useState("");
  const [message, setSays] = useState<string>();
  const run = useImport(() => void queries.invalidateQueries());
  const look = async (of: File, mapping?: Schemas["Mapping"]) => {
    const text = await readText(of.slice(0, PREVIEW_BYTES));
    const whole = of.size <= PREVIEW_BYTES ? text : text.slice(0, text.lastIndexOf("\n"));
    const response = await fetch("/api/v1/imports/preview", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({
        table: whole,
        mill,
        decimal_mark: preferences.mark,
        ...(mapping ? { mapping } : {}),
      }),
    }).catch(() => undefined);
    if (!response)
      return setSays("The server does not answer; the file is untouched, try again in a moment");
    const read: unknown = await response.json().catch(() => undefined);
    if (!response.ok) return setSays(`${of.name}: ${asProblem(read, response.status).detail}`);
    const seen = read as Schemas["TablePreview"];
    setSays(undefined);
    setPreview(seen);
    if (seen.mill) setMill(seen.mill);
  };
  const take = (chosen: File) => {
    run.reset();
    setFile(chosen);
    setPreview(undefined);
    setSays(undefined);
    if (!chosen.name.toLowerCase().endsWith(".json")) void look(chosen);
  };
  const isJson = file?.name.toLowerCase().endsWith(".json") ?? false;
  return (
    <>
      <FlourTabs />
      <h1>Bulk import</h1>
      <p className="mt-1 max-w-3xl">
        A mill's own table with a lot in each row (CSV), or lots in our own JSON. Lots that are on
        record already are recognised; sending a file again doubles nothing.
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-x-6 gap-y-2">
        <FileChoice look="act" accept=".csv,.txt,.json,text/csv,application/json" onFile={take}>
          Choose the file
        </FileChoice>
        <span className="text-sm">
          Save every lot as{" "}
          <a className="link" href="/api/v1/lots/export?format=csv">
            CSV
          </a>{" "}
          or{" "}
          <a className="link" href="/api/v1/lots/export?format=json">
            JSON
          </a>
        </span>
      </div>
      {message && (
        <p className="mt-2 text-stop" role="alert">
          {message}.
        </p>
      )}
      {file && (preview || isJson) && (
        <div className="mt-4 flex flex-wrap items-end gap-4 border-t border-ink pt-3">
          <p>
            <b>{file.name}</b>
            {preview?.remembered_by && (
              <span className="block text-sm text-moss">
                Read as {preview.remembered_by} corrected it last time
              </span>
            )}
          </p>
          {preview && (
            <FieldText
              label="Mill"
              placeholder="Brae Stone Mill"
              className="w-48"
              value={mill}
              onChange={setMill}
            />
          )}
          <Author label="Imported by" />
          <button
            type="button"
            className="act act-main"
            disabled={run.state?.running}
            onClick={() =>
              void run.start(file, {
                mapping: preview?.mapping,
                mill,
                decimal_mark: preview?.decimal_mark ?? preferences.mark,
              })
            }
          >
            Import all rows
          </button>
        </div>
      )}
      {run.state && <ImportProgress state={run.state} onCancel={run.cancel} />}
      {file && preview && !run.state?.running && (
        <MappingTable
          preview={preview}
          onChange={(mapping) => {
            setPreview({ ...preview, mapping });
            void look(file, mapping);
          }}
        />
      )}
    </>
  );
}
