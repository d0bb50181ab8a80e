import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { record } from "../api/outbox";
import { readFile } from "../api/readFile";
import { CSV, FileChoice } from "../form/FileChoice";
import { FileSays, type FileState } from "../form/FileSays";
import { Form } from "../form/Form";
import { NumberField } from "../form/NumberField";
import { useFormat } from "../units/format";
import { usePreferences } from "../units/preferences";

type Unit = Schemas["LoggerUnit"];

interface Props {
  batch: Schemas["BatchSummary"];
  onDone: (id: string) => void;
}

/** Takes a logger's file in for a batch. */
export function ImportBake({ batch, onDone }: Props) {
  const format = useFormat();
  const { preferences } = usePreferences();
  const queries = useQueryClient();
  const [file, setFile] = useState<File>();
  const [read, setRead] = useState<Schemas["BakeFile"]>();
  const [state, setState] = useState<FileState>();
  const [asksUnit, setAsksUnit] = useState(false);
  const [minutes, setMinutes] = useState<number | null>(batch.bake_min ?? null);
  const take = async (chosen: File, unit?: Unit) => {
    setFile(chosen);
    setRead(undefined);
    setState({ reading: chosen.name });
    const found = await readFile<Schemas["BakeFile"]>(
      "/api/v1/bake-traces/read",
      { decimal_mark: preferences.mark, ...(unit && { unit }) },
      chosen,
    );
    if ("message" in found) {
      setAsksUnit(found.errors?.some((error) => error.field === "unit") ?? false);
      return setState({ refused: found.message });
    }
    setAsksUnit(false);
    const trace = found.read;
    setState(undefined);
    setRead(trace);
    setMinutes((now) => now ?? trace.t_min.at(-1) ?? null);
  };
  const save = useMutation({
    networkMode: "always",
    mutationFn: async () => {
      const id = crypto.randomUUID();
      const body = { bake_min: minutes, t_min: read?.t_min, probes: read?.probes };
      const path = `/api/v1/batches/${batch.id}/bake-traces/${id}`;
      await record({ path, label: `bake trace of ${batch.product}`, body });
      return id;
    },
    onSuccess: async (id) => {
      await queries.invalidateQueries({ queryKey: ["batches"] });
      onDone(id);
    },
  });
  return (
    <section aria-labelledby="import-bake">
      <h2 id="import-bake">A logger's file</h2>
      <p className="text-sm text-iron">
        CSV with a column of time, in minutes, seconds or by the clock, and one for each probe.
      </p>
      <FileChoice accept={CSV} className="mt-2 inline-block" onFile={(file) => void take(file)} />
      <FileSays state={state}>
        {file && asksUnit && (
          <p className="mt-1 flex gap-3">
            <button type="button" className="act" onClick={() => void take(file, "fahrenheit")}>
              They are °F
            </button>
            <button type="button" className="act" onClick={() => void take(file, "celsius")}>
              They are °C
            </button>
          </p>
        )}
      </FileSays>
      {read && (
        <Form className="mt-2" error={save.error} onSubmit={() => save.mutate()}>
          <p>
            {format.count(read.probes.length, "probe")}, {format.count(read.t_min.length, "sample")}
            .
          </p>
          {read.left_out.map((why) => (
            <p key={why} className="text-crust">
              {format.text(why)}.
            </p>
          ))}
          <div className="mt-2 flex flex-wrap items-end gap-4">
            <NumberField
              label="Baked for"
              className="w-32"
              kind="duration"
              field="bake_min"
              value={minutes}
              onSet={setMinutes}
            />
            <button type="submit" className="act act-main" disabled={save.isPending}>
              Save trace
            </button>
          </div>
        </Form>
      )}
    </section>
  );
}
