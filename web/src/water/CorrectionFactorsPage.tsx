import { useState } from "react";
import type { Schemas } from "../api/client";
import { usePlantParameters } from "../dough/usePlantParameters";
import { useFormat } from "../units/format";
import { CorrectionFactorSheet } from "./CorrectionFactorSheet";
import { WaterTabs } from "./WaterTabs";

/** Every rule of the build-up: the house's, and the plant's own where it has one. */
export function CorrectionFactorsPage() {
  const numbers = usePlantParameters();
  const format = useFormat();
  const [open, setOpen] = useState<Schemas["CorrectionFactor"] | null>(null);
  const band = ({ typical, low, high }: Schemas["Estimate"]) =>
    `${format.plain(typical)}${low === high ? "" : ` (${format.plain(low)} to ${format.plain(high)})`}`;
  return (
    <>
      <WaterTabs />
      <h1>Correction factors</h1>
      <p className="mt-1 max-w-prose text-sm text-iron">
        House defaults hold until the plant knows better. A factor changed here moves every dough
        absorption from now on, and no batch planned before.
        {numbers?.revision &&
          ` Revision ${numbers.revision.number}, ${format.date(numbers.revision.made_at)}, ${numbers.revision.made_by}: ${numbers.revision.reason}.`}
      </p>
      <table className="mt-4 w-full">
        <caption className="sr-only">Correction factors</caption>
        <thead>
          <tr className="border-b border-ink">
            <th scope="col" className="py-1">
              factor
            </th>
            <th scope="col">default</th>
            <th scope="col">plant value</th>
            <th scope="col">why</th>
            <th scope="col">
              <span className="sr-only">change</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {numbers?.correction_factors.map((one) => (
            <tr key={one.rule} className="border-b border-hair align-top">
              <th scope="row" className="py-1 pr-4 text-base font-normal text-ink">
                {one.label}
              </th>
              <td className="pr-4 whitespace-nowrap">
                {band(one.house)} <span className="text-sm text-iron">{one.unit}</span>
              </td>
              <td className="pr-4 font-semibold whitespace-nowrap">
                {one.own && (one.own.off ? "off" : band(one.own.value))}
              </td>
              <td className="pr-4 text-sm text-iron">{one.own?.reason ?? one.reason}</td>
              <td className="text-right">
                <button
                  type="button"
                  className="link text-sm"
                  aria-label={`Change ${one.label}`}
                  onClick={() => setOpen(one.rule)}
                >
                  Change
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <CorrectionFactorSheet rule={open} onClose={() => setOpen(null)} />
    </>
  );
}
