import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { useGoOn } from "../shell/useGoOn";
import { record } from "../api/outbox";
import { useScenario } from "../scenario/ScenarioProvider";
import { writeScenario } from "../scenario/scenario";
import { FieldText } from "../form/FieldText";
import { Author } from "../form/Author";
import type { BlendLot } from "./blend";
import { useFlours } from "../scenario/useFlours";
import { Faults } from "../form/Faults";

/** Keeps a blend as a flour of its own, with a lot of it from the lots used. */
export function BlendSave({ lots }: { lots: BlendLot[] }) {
  const flours = useFlours();
  const queries = useQueryClient();
  const goOn = useGoOn();
  const { newest } = useScenario();
  const [is, setIs] = useState({ name: "", code: "", tonnes: "", reason: "" });
  const known = flours?.find((flour) => flour.name.toLowerCase() === is.name.trim().toLowerCase());
  const save = useMutation({
    networkMode: "always",
    mutationFn: async () => {
      const flourId = known?.id ?? crypto.randomUUID();
      const blend =
        known &&
        (await answer(
          api.GET("/api/v1/flours/{flour_id}/blend", { params: { path: { flour_id: known.id } } }),
        ));
      return record<Schemas["LotView"]>({
        path: `/api/v1/blends/${flourId}`,
        label: `blend ${is.name}`,
        body: {
          name: is.name,
          number: (blend?.revision.number ?? 0) + 1,
          revision_id: crypto.randomUUID(),
          parts: lots.map((lot) => ({ lot_id: lot.lotId, share_pct: lot.share })),
          lot_id: crypto.randomUUID(),
          lot_revision_id: crypto.randomUUID(),
          lot_code: is.code,
          tonnes: is.tonnes,
          signed: { reason: is.reason },
        },
      });
    },
    onSuccess: async (lot) => {
      await queries.invalidateQueries();
      goOn({
        pathname: "/flour",
        search: writeScenario({ ...newest().scenario, lot: lot.id }).toString(),
      });
    },
  });
  return (
    <section aria-labelledby="keep" className="mt-8 border-t border-ink pt-3">
      <h2 id="keep">Save as a flour</h2>
      <div className="mt-1 flex flex-wrap items-end gap-4">
        <Faults error={save.error}>
          <FieldText
            label="Name of the blend"
            placeholder="Tarn Middle"
            className="w-52"
            value={is.name}
            field="name"
            onChange={(name) => setIs({ ...is, name })}
          />
          <FieldText
            label="Its lot"
            placeholder="TM-26-001"
            className="w-40"
            value={is.code}
            field="lot_code"
            onChange={(code) => setIs({ ...is, code })}
          />
          <FieldText
            label="Tonnes"
            className="w-24"
            value={is.tonnes}
            field="tonnes"
            onChange={(tonnes) => setIs({ ...is, tonnes })}
          />
          {known && (
            <FieldText
              label="Reason for the change"
              className="w-56"
              value={is.reason}
              field="signed.reason"
              onChange={(reason) => setIs({ ...is, reason })}
            />
          )}
          <Author label="Blended by" />
          <button
            type="button"
            className="act act-main"
            disabled={save.isPending}
            onClick={() => save.mutate()}
          >
            Save blend
          </button>
        </Faults>
      </div>
    </section>
  );
}
