import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { type Schemas } from "../api/client";
import { record } from "../api/outbox";
import { Author } from "../form/Author";
import { useFormat } from "../units/format";
import { NumberField } from "../form/NumberField";
import { Faults } from "../form/Faults";

const READ = [
  ["flour_c", "Flour was"],
  ["room_c", "Room was"],
  ["water_c", "Water was"],
  ["preferment_c", "Sponge or starter"],
  ["dough_c", "Dough was"],
] as const;
type Read = Partial<Record<(typeof READ)[number][0] | "ice_share_pct", number | undefined>>;

interface Props {
  product: Schemas["ProductView"];
  /** The selected product, whose masses are kept with what is measured. */
  scenario: Schemas["ScenarioInput"] | null;
  measured: Schemas["TemperatureView"][];
}

/** Temperatures of doughs as they come off the mixer: what its friction is learned from. */
export function MeasuredDoughs({ product, scenario, measured }: Props) {
  const format = useFormat();
  const queries = useQueryClient();
  const [read, setRead] = useState<Read>({});
  const save = useMutation({
    networkMode: "always",
    mutationFn: () => {
      const body: Schemas["MeasuredInput"] = {
        ...read,
        method_id: product.method.id,
        line_id: product.line.id,
        taken_at: new Date().toISOString(),
        ...(scenario && { scenario }),
      };
      return record<Schemas["TemperatureView"]>({
        path: `/api/v1/dough-temperatures/${crypto.randomUUID()}`,
        label: `a measured dough of ${product.name}`,
        body,
      });
    },
    onSuccess: async () => {
      setRead({});
      await queries.invalidateQueries({ queryKey: ["method guide"] });
    },
  });
  return (
    <section aria-labelledby="measured" className="screen-only">
      <h2 id="measured">Measured dough temperature</h2>
      <div className="mt-1">
        <Faults error={save.error}>
          <div className="grid grid-cols-3 gap-x-4 gap-y-2">
            {READ.map(([key, label]) => (
              <NumberField
                key={key}
                label={label}
                kind="temperature"
                value={read[key] ?? null}
                onSet={(value) => setRead({ ...read, [key]: value ?? undefined })}
                field={key}
              />
            ))}
            <NumberField
              label="Of the water, ice"
              kind="percent"
              value={read.ice_share_pct ?? null}
              onSet={(value) => setRead({ ...read, ice_share_pct: value ?? undefined })}
              field="ice_share_pct"
            />
          </div>
          <div className="mt-2 flex items-end gap-4">
            <Author needs="record" />
            <button
              type="button"
              className="act"
              disabled={save.isPending}
              onClick={() => save.mutate()}
            >
              Save
            </button>
          </div>
        </Faults>
      </div>
      {measured.length > 0 && (
        <table className="mt-3 w-full text-sm">
          <caption className="sr-only">Measured dough temperatures, newest first</caption>
          <thead>
            <tr className="border-b border-ink">
              {["when", "flour", "room", "water", "dough", "friction"].map((word, at) => (
                <th scope="col" key={word} className={at === 0 ? "" : "text-right"}>
                  {word}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {measured.slice(0, 6).map((one) => (
              <tr key={one.id} className="border-b border-hair">
                <td className="py-0.5">{format.date(one.taken_at)}</td>
                {[one.flour_c, one.room_c, one.water_c, one.dough_c].map((value, at) => (
                  <td key={at} className="text-right">
                    {format.temperature(value)}
                  </td>
                ))}
                <td className="text-right">{format.degrees(one.friction_c).replace("+", "")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
