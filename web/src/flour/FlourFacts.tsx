import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, type Schemas } from "../api/client";
import { record } from "../api/outbox";
import { AllergensOf, message } from "../plant/AllergensOf";
import { FieldText } from "../form/FieldText";
import { Author } from "../form/Author";
import { stored } from "../storage/stored";
import { useKept } from "../storage/useKept";
import { useFormat, type Format } from "../units/format";
import { given } from "../units/number";
import { usePreferences } from "../units/preferences";
import { FlourRevisions } from "./FlourRevisions";
import { SPECIES, TREATMENTS, USES } from "../plant/uses";
import { optionsOf, Select } from "../form/Select";
import { Faults } from "../form/Faults";

const HARDNESSES: [Schemas["Hardness"] | "", string][] = [
  ["", "not stated"],
  ["hard", "hard"],
  ["medium", "medium"],
  ["soft", "soft"],
];

const editKey = (id: string) => `ironpeel.flour.${id}`;

const typed = (flour: Schemas["FlourView"], format: Format) => ({
  mill: flour.mill,
  name: flour.name,
  note: flour.note,
  species: flour.species,
  hardness: flour.hardness ?? "",
  extraction: flour.extraction_pct == null ? "" : format.plain(flour.extraction_pct),
  price: flour.price_per_t == null ? "" : format.plain(flour.price_per_t),
  treatment: flour.treatment,
  intended_use: flour.intended_use,
  allergens: flour.allergens ?? null,
  reason: "",
});

/** What a flour is, to read and to change. */
export function FlourFacts({ flour }: { flour: Schemas["FlourView"] }) {
  const format = useFormat();
  // What was being typed is typed on.
  const [editing, edit] = useState(() => stored(editKey(flour.id)) !== undefined);
  const [open, show] = useState(false);
  const revisions = useQuery({
    queryKey: ["flour revisions", flour.id],
    queryFn: () =>
      answer(
        api.GET("/api/v1/flours/{flour_id}/revisions", {
          params: { path: { flour_id: flour.id } },
        }),
      ),
  }).data;
  const blend = useQuery({
    queryKey: ["blend of", flour.id],
    queryFn: () =>
      answer(
        api.GET("/api/v1/flours/{flour_id}/blend", { params: { path: { flour_id: flour.id } } }),
      ),
  }).data;
  const newest = revisions?.[0]?.revision.number;
  if (editing && newest !== undefined)
    return <EditFlour flour={flour} number={newest + 1} onDone={() => edit(false)} />;
  const facts = [
    flour.mill,
    flour.species_label,
    flour.hardness && `${flour.hardness} kernel`,
    flour.extraction_pct != null &&
      (flour.extraction_pct === 100
        ? "whole grain"
        : `extraction ${format.number(flour.extraction_pct, 0)} %`),
    TREATMENTS[flour.treatment],
    `for ${USES[flour.intended_use]}`,
    flour.price_per_t != null && `${format.money(flour.price_per_t)} a tonne`,
    `allergens ${flour.allergens == null ? "of its grain alone" : message(flour.allergens)}`,
    flour.note,
  ];
  return (
    <>
      <p className="mt-1 text-sm text-iron">
        {facts.filter(Boolean).join(" · ")}{" "}
        <span className="screen-only text-ink">
          {!editing && (
            <button type="button" className="link" onClick={() => edit(true)}>
              change
            </button>
          )}
          {newest !== undefined && newest > 1 && (
            <button
              type="button"
              className="link ml-3"
              aria-expanded={open}
              onClick={() => show(!open)}
            >
              {newest} revisions
            </button>
          )}
        </span>
        {blend && (
          <span className="block">
            Blended of{" "}
            {blend.parts
              .map((part) => `${part.flour} ${format.percent(part.share_pct)}`)
              .join(", ")}{" "}
            (revision {blend.revision.number})
          </span>
        )}
      </p>
      {open && revisions && <FlourRevisions revisions={revisions} />}
    </>
  );
}

/** A flour's facts as fields; of a new flour, all of them empty. */
export function EditFlour({
  flour,
  number,
  onDone,
}: {
  flour: Schemas["FlourView"];
  /** Of the revision this is to be. */
  number: number;
  onDone: (recorded: boolean) => void;
}) {
  const queries = useQueryClient();
  const { preferences } = usePreferences();
  const format = useFormat();
  const key = editKey(flour.id);
  const [is, set, forget] = useKept(key, (kept?: Partial<ReturnType<typeof typed>>) => ({
    ...typed(flour, format),
    ...kept,
  }));
  const save = useMutation({
    networkMode: "always",
    mutationFn: async () => {
      const { extraction, hardness, price, reason, ...rest } = is;
      await record({
        path: `/api/v1/flours/${flour.id}/revisions/${crypto.randomUUID()}`,
        subject: key,
        label: is.name,
        draft: { key, as: is },
        body: {
          ...rest,
          number,
          signed: { reason },
          hardness: hardness || null,
          extraction_pct: given(extraction, preferences.mark),
          price_per_t: given(price, preferences.mark),
        },
      });
      forget(is);
      await queries.invalidateQueries();
      onDone(true);
    },
  });
  return (
    <div className="mt-3 border-y border-hair py-3">
      <Faults error={save.error}>
        <div className="grid grid-cols-2 gap-x-6 gap-y-2 md:grid-cols-4">
          <FieldText label="Name" value={is.name} field="name" onChange={(name) => set({ name })} />
          <FieldText label="Mill" value={is.mill} field="mill" onChange={(mill) => set({ mill })} />
          <Select
            label="Grain"
            value={is.species}
            options={optionsOf(SPECIES)}
            onSet={(species) => set({ species })}
          />
          <Select
            label="Kernel"
            value={is.hardness}
            options={HARDNESSES}
            onSet={(hardness) => set({ hardness })}
          />
          <FieldText
            label="Extraction, % of the grain"
            placeholder="100 is whole grain"
            value={is.extraction}
            field="extraction_pct"
            onChange={(extraction) => set({ extraction })}
          />
          <Select
            label="Treatment"
            value={is.treatment}
            options={optionsOf(TREATMENTS)}
            onSet={(treatment) => set({ treatment })}
          />
          <Select
            label="Meant for"
            value={is.intended_use}
            options={optionsOf(USES)}
            onSet={(intended_use) => set({ intended_use })}
          />
          <FieldText
            label="Price of a tonne"
            value={is.price}
            field="price_per_t"
            onChange={(price) => set({ price })}
          />
          <FieldText label="Note" value={is.note} field="note" onChange={(note) => set({ note })} />
        </div>
        <AllergensOf stated={is.allergens} onSet={(allergens) => set({ allergens })} />
        <div className="mt-3 flex flex-wrap items-end gap-3">
          {number > 1 && (
            <FieldText
              label="Reason for the change"
              className="min-w-64 flex-1"
              value={is.reason}
              field="signed.reason"
              onChange={(reason) => set({ reason })}
            />
          )}
          <Author />
          <button
            type="button"
            className="act act-main"
            disabled={save.isPending}
            onClick={() => save.mutate()}
          >
            Save flour
          </button>
          <button
            type="button"
            className="act"
            onClick={() => {
              forget();
              onDone(false);
            }}
          >
            Discard
          </button>
        </div>
      </Faults>
    </div>
  );
}
