import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { useGoOn } from "../shell/useGoOn";
import { record } from "../api/outbox";
import { LINES } from "../scenario/found";
import { useFlours } from "../scenario/useFlours";
import { FieldText } from "../form/FieldText";
import { Author } from "../form/Author";
import { useKept } from "../storage/useKept";
import { useFormat } from "../units/format";
import { DoughTabs } from "./DoughTabs";
import { Select } from "../form/Select";
import { Form } from "../form/Form";

/** A product of its own from a family's template, with the plant's flours. */
export function NewProductPage() {
  const format = useFormat();
  const templates = useQuery({
    queryKey: ["templates"],
    queryFn: () => answer(api.GET("/api/v1/templates")),
  }).data;
  const [key, choose] = useState("sliced_tin");
  const template = templates?.find((one) => one.key === key);
  return (
    <>
      <DoughTabs />
      <h1>A new product</h1>
      <p className="text-sm text-iron">
        Begin with a family; formula and method are the product's own from then on.
      </p>
      <div className="mt-4 grid gap-x-12 gap-y-6 lg:grid-cols-[minmax(0,1fr)_24rem]">
        <ul aria-label="Families" className="border-t border-ink">
          {templates?.map((one) => (
            <li key={one.key} className="border-b border-hair">
              <button
                type="button"
                aria-pressed={one.key === key}
                className="block w-full px-2 py-2 text-left hover:bg-faint aria-pressed:border-l-4 aria-pressed:border-crust aria-pressed:bg-faint"
                onClick={() => choose(one.key)}
              >
                <span className="text-lg font-semibold">{one.name}</span>
                <span className="block text-sm">{one.message}</span>
                <span className="block text-sm text-iron">
                  {one.process_label}, {format.minutes(one.total_min)} from the first water, pieces
                  of {format.mass(one.piece_kg, 0.001)}, from{" "}
                  {one.wants.map((flour) => flour.name).join(", ")}
                </span>
              </button>
            </li>
          ))}
        </ul>
        {template && <MakeProduct key={template.key} template={template} />}
      </div>
    </>
  );
}

interface Typing {
  name: string;
  chosen: Record<number, string>;
  lineId: string;
}

const begin = (kept?: Partial<Typing>): Typing => ({ name: "", chosen: {}, lineId: "", ...kept });

function MakeProduct({ template }: { template: Schemas["TemplateView"] }) {
  const flours = useFlours();
  const lines = useQuery(LINES).data;
  const queries = useQueryClient();
  const goOn = useGoOn();
  const key = `ironpeel.product.${template.key}`;
  const [typing, type, forget] = useKept(key, begin);
  const { name, chosen, lineId } = typing;
  const fitting = (at: number) => {
    const wanted = template.wants[at];
    const kin = flours?.filter((flour) => flour.species === wanted?.species) ?? [];
    const fits = (flour: Schemas["FlourView"], hardness: boolean) =>
      (flour.extraction_pct === 100) === wanted?.whole &&
      (!hardness || !wanted?.hardness || flour.hardness === wanted.hardness);
    return (
      kin.find((flour) => fits(flour, true)) ??
      kin.find((flour) => fits(flour, false)) ??
      kin[0] ??
      flours?.[0]
    );
  };
  const ids = template.wants.map((_, at) => chosen[at] ?? fitting(at)?.id ?? "");
  const slug = name
    .trim()
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");
  const make = useMutation({
    networkMode: "always",
    mutationFn: async () => {
      const product = await record<Schemas["ProductView"]>({
        path: `/api/v1/products/${slug || "-"}`,
        subject: key,
        draft: { key, as: typing },
        label: name,
        body: {
          name,
          template: template.key,
          flours: ids,
          line_id: lineId || lines?.[0]?.id,
          signed: {},
        },
      });
      forget(typing);
      await queries.invalidateQueries({ queryKey: ["products"] });
      goOn(`/dough?product=${product.slug}`);
    },
  });
  return (
    <Form label="Make it" error={make.error} onSubmit={() => make.mutate()}>
      <FieldText
        label="Its name here"
        value={name}
        onChange={(name) => type({ name })}
        field={["name", "slug"]}
      />
      {template.wants.map((wanted, at) => (
        <Select
          key={wanted.name}
          label={`For ${wanted.name}`}
          className="mt-3"
          value={ids[at] ?? ""}
          options={flours?.map((flour) => [flour.id, flour.name]) ?? []}
          onSet={(id) => type((now) => ({ chosen: { ...now.chosen, [at]: id } }))}
        />
      ))}
      <p className="mt-1 text-sm">
        <Link className="link" to="/flour/bag?for=product">
          A flour from a bag
        </Link>
      </p>
      <Select
        label="On line"
        className="mt-3"
        value={lineId || (lines?.[0]?.id ?? "")}
        options={lines?.map((line) => [line.id, line.name]) ?? []}
        onSet={(lineId) => type({ lineId })}
      />
      <div className="mt-3">
        <Author />
      </div>
      <button
        type="submit"
        className="act act-main mt-4"
        disabled={make.isPending || !flours || !lines}
      >
        Make the product
      </button>
    </Form>
  );
}
