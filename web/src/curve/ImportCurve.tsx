import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { record } from "../api/outbox";
import { readFile } from "../api/readFile";
import { CSV, FileChoice } from "../form/FileChoice";
import { FileSays, type FileState } from "../form/FileSays";
import { FieldText } from "../form/FieldText";
import { Author } from "../form/Author";
import { useFormat } from "../units/format";
import { given } from "../units/number";
import { usePreferences } from "../units/preferences";
import { Faults } from "../form/Faults";

/** Takes in a laboratory's curve file for the lot. */
export function ImportCurve({
  lot,
  onDone,
}: {
  lot: Schemas["LotView"];
  onDone: (id: string) => void;
}) {
  const { preferences } = usePreferences();
  const queries = useQueryClient();
  const [file, setFile] = useState<Schemas["CurveFile"]>();
  const [state, setState] = useState<FileState>();
  const [head, setHead] = useState({ mixer_g: "300", flour_moisture_pct: "", water_ml: "" });
  const format = useFormat();
  const shown = (value: number | null | undefined) => (value == null ? "" : format.plain(value));
  const take = async (chosen: File) => {
    setState({ reading: chosen.name });
    const found = await readFile<Schemas["CurveFile"]>(
      "/api/v1/curves/read",
      { decimal_mark: preferences.mark },
      chosen,
    );
    if ("message" in found) return setState({ refused: found.message });
    const curve = found.read;
    const moisture = lot.certificate.moisture_pct;
    setState(undefined);
    setFile(curve);
    setHead({
      mixer_g: shown(curve.mixer_g ?? 300),
      flour_moisture_pct: shown(curve.flour_moisture_pct ?? moisture),
      water_ml: shown(curve.water_ml),
    });
  };
  const save = useMutation({
    networkMode: "always",
    mutationFn: (id: string) => {
      const number = (text: string) => given(text, preferences.mark);
      const input =
        file?.kind === "alveograph"
          ? { curves: file.curves }
          : {
              mixer_g: number(head.mixer_g),
              flour_moisture_pct: number(head.flour_moisture_pct),
              flour_g: file?.flour_g ?? null,
              water_ml: number(head.water_ml),
              t_s: file?.t_s,
              fu: file?.fu,
              ...(file && file.band_fu.length > 0 ? { band_fu: file.band_fu } : {}),
            };
      return record({
        path: `/api/v1/lots/${lot.id}/curves/${id}`,
        label: `curve of ${lot.code}`,
        body: { kind: file?.kind, input, signed: { reason: "" } },
      }).then(() => id);
    },
    onSuccess: async (id) => {
      setFile(undefined);
      await queries.invalidateQueries({ queryKey: ["curves", lot.id] });
      onDone(id);
    },
  });
  const field = (key: keyof typeof head, label: string) => (
    <FieldText
      label={label}
      className="w-32"
      value={head[key]}
      field={key}
      onChange={(value) => setHead({ ...head, [key]: value })}
    />
  );
  return (
    <section aria-labelledby="take-curve">
      <h2 id="take-curve">Import a curve</h2>
      <p className="text-sm text-iron">
        CSV with columns <code>time_s, torque_fu, band_fu</code>, or{" "}
        <code>curve, l_mm, p_mmh2o</code>.
      </p>
      <FileChoice accept={CSV} className="mt-2 inline-block" onFile={(file) => void take(file)} />
      <FileSays state={state} />
      {file && (
        <div className="mt-2">
          <p>
            A {file.kind} curve,{" "}
            {file.kind === "alveograph"
              ? `${file.curves.length} bubbles`
              : `${file.t_s.length} points`}
            . {file.notes.join(". ")}
          </p>
          <div className="mt-2 flex flex-wrap items-end gap-4">
            <Faults error={save.error}>
              {file.kind === "farinograph" && (
                <>
                  {field("mixer_g", "Mixer, g")}
                  {field("flour_moisture_pct", "Flour moisture, %")}
                  {field("water_ml", "Water, ml")}
                </>
              )}
              <Author label="Imported by" />
              <button
                type="button"
                className="act act-main"
                disabled={save.isPending}
                onClick={() => save.mutate(crypto.randomUUID())}
              >
                Save curve
              </button>
            </Faults>
          </div>
        </div>
      )}
    </section>
  );
}
